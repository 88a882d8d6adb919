export interface ServiceUser {
  /** Null: whoever starts it. */
  readonly uid: number | null;
  readonly gid: number;
  readonly passesDoors: boolean;
}
export declare function serviceUser(root: string): ServiceUser;
export declare function asServiceUser(
  user: ServiceUser,
  command: string,
  args: readonly string[],
): [command: string, args: string[], options: { uid?: number; gid?: number; cwd: string }];
export declare function giveTo(user: ServiceUser, folder: string): void;
