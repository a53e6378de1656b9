export const TEST: "[.]test(-data)?[.]tsx?$|^server/test/|^e2e/";
export namespace OPTIONS {
    namespace doNotFollow {
        let path: string;
    }
    namespace exclude {
        let path_1: string;
        export { path_1 as path };
    }
    let tsPreCompilationDeps: boolean;
    namespace enhancedResolveOptions {
        let exportsFields: string[];
        let conditionNames: string[];
        let extensions: string[];
    }
}
export default config;
/** @type {import('dependency-cruiser').IConfiguration} */
declare const config: import("dependency-cruiser").IConfiguration;
