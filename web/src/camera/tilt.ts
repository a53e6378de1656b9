import { useEffect, useState } from 'react';

/**
 * How far a device's back looks off straight down, degrees, from its turn about its own axes (W3C Device Orientation:
 * beta about x, gamma about y): the angle between its normal and the vertical, cos t = cos beta · cos gamma.
 */
export function tiltOf(betaDeg: number, gammaDeg: number): number {
  const cos = Math.cos((betaDeg * Math.PI) / 180) * Math.cos((gammaDeg * Math.PI) / 180);
  return (Math.acos(Math.min(1, Math.max(-1, cos))) * 180) / Math.PI;
}

/** The device's tilt by its motion sensors; null where there are none, or they say nothing. */
export function useDeviceTilt(): number | null {
  const [tiltDeg, setTilt] = useState<number | null>(null);
  useEffect(() => {
    const listen = ({ beta, gamma }: DeviceOrientationEvent): void => {
      if (beta !== null && gamma !== null) setTilt(Math.round(tiltOf(beta, gamma)));
    };
    window.addEventListener('deviceorientation', listen);
    return () => window.removeEventListener('deviceorientation', listen);
  }, []);
  return tiltDeg;
}
