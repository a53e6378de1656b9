declare const _default: {
    forbidden: ({
        name: string;
        severity: "error";
        scope: "folder";
        from: {};
        to: {
            circular: true;
        };
    } | {
        name: string;
        severity: "error";
        from: {};
        to: {
            circular: true;
        };
        scope?: never;
    })[];
    options: {
        exclude: {
            path: string;
        };
        doNotFollow: {
            path: string;
        };
        tsPreCompilationDeps: boolean;
        enhancedResolveOptions: {
            exportsFields: string[];
            conditionNames: string[];
            extensions: string[];
        };
    };
};
export default _default;
