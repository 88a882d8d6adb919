export declare class SetupError extends Error {}
export declare function installDebian(packages: string[], say: (line: string) => void): void;
