export declare function ensureDatabase(
  cluster: {
    readonly url: (database: string) => string;
    readonly applicationUrl: (database: string) => string;
    readonly applicationPassword: string;
  },
  database: string,
): Promise<string>;
