declare const _default: import("eslint/config").ConfigObject[];
export default _default;
