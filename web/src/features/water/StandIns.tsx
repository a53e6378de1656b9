import type { ReactNode } from 'react';
import type { MeasuringBoard } from '@lauta/vision';
import { SimulatedCamera } from '../../camera/SimulatedCamera.tsx';
import { RecordedVoice } from './RecordedVoice.tsx';
import type { WaterSession } from './useWaterSession.ts';

const SHORTEST_SIMULATED_MM = 300;
const SIMULATED_SPREAD_MM = 220;

/** Stands in for the cameras of a device. */
export function DemoCameras({ session, board }: { session: WaterSession; board: MeasuringBoard }) {
  const { camera, card, choices, event } = session;
  return (
    <>
      <button type="button" className="btn h-16 text-base" onClick={() => camera.open('simulated')}>
        Simulated live view
      </button>
      <SimulatedCamera
        zone={event.zone}
        onPhoto={session.begin}
        shoot={(simulated, time, seed, signal, onProgress) =>
          simulated.call(
            'photograph',
            {
              ...time,
              seed,
              board,
              look: choices.speciesId,
              lengthMm: SHORTEST_SIMULATED_MM + Math.random() * SIMULATED_SPREAD_MM,
              identifier: card,
            },
            signal,
            onProgress,
          )
        }
      />
    </>
  );
}

/** What stands in for real devices in a demo: never before what a person came for. */
export function StandIns({ isHidden, children }: { isHidden: boolean; children: ReactNode }) {
  return (
    <section aria-label="Stand-ins of the demo" className={isHidden ? 'hidden' : 'grid gap-2 lg:order-last'}>
      <p className="text-quiet">Stand-ins of the demo, for devices that are not here:</p>
      <div className="grid grid-cols-2 gap-2 lg:grid-cols-3">
        {children}
        <RecordedVoice />
      </div>
    </section>
  );
}
