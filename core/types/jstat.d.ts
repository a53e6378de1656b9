declare module 'jstat' {
  const bundle: {
    jStat: {
      normal: {
        cdf(x: number, mean: number, std: number): number;
        inv(p: number, mean: number, std: number): number;
      };
    };
  };
  export default bundle;
}
