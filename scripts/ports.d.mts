export declare function freePorts(count: number): Promise<number[]>;
export declare function isPortFree(port: number, host?: string): Promise<boolean>;
