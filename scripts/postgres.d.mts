export declare const ROOT: string;
export declare class SetupError extends Error {}
export declare function installDebian(packages: string[], say: (line: string) => void): void;
export declare function startPostgres(
  kind: 'tests' | 'demo' | 'main',
  say?: (line: string) => void,
  name?: string,
): Promise<{ url: (database: string) => string }>;
export declare function stopPostgres(name: string): Promise<void>;
export declare function destroyPostgres(name: string): Promise<void>;
