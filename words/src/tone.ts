/** How something stands: nothing to see to, to be looked at, wrong. */
export type Tone = 'clear' | 'look' | 'fault';
