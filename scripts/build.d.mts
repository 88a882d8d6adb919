export declare function build(say?: (line: string) => void): Promise<void>;
