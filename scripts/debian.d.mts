export declare class SetupError extends Error {}
export declare function installDebian(packages: string[], say: (line: string) => void): void;
/** The programs of PostgreSQL that fit the data in a folder. */
export declare function programsFor(dataDir: string, say: (line: string) => void): string;
