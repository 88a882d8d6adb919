/** What tests use of the reference implementation of Data Packages, which brings no types. */
declare module 'datapackage' {
  interface Resource {
    readonly name: string;
    read(options: { keyed: true }): Promise<Record<string, unknown>[]>;
  }
  interface Package {
    readonly valid: boolean;
    readonly errors: readonly Error[];
    readonly resources: readonly Resource[];
    getResource(name: string): Resource | null;
  }
  const datapackage: {
    Package: { load(descriptor: string, options: { basePath: string; strict?: boolean }): Promise<Package> };
  };
  export default datapackage;
}
