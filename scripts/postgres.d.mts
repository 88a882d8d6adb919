export declare const APPLICATION_ROLE: string;
export interface Cluster {
  readonly dataDir: string;
  /** The folder of the programs that fit it. */
  readonly programs: string;
  /** As the cluster's administrator. */
  readonly url: (database: string) => string;
  /** As the application, which is no superuser. */
  readonly applicationUrl: (database: string) => string;
  readonly applicationPassword: string;
}
export declare function startPostgres(
  kind: 'tests' | 'bench' | 'demo' | 'main',
  say?: (line: string) => void,
  name?: string,
): Promise<Cluster>;
export declare function stopPostgres(name: string): Promise<void>;
export declare function destroyPostgres(name: string): Promise<void>;
/** The process that serves a data folder; null where none does. */
export declare function postmasterOf(dataDir: string): number | null;
