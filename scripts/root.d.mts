/** The project's folder. */
export declare const ROOT: string;
