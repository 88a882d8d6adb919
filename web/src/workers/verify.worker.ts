import { InputError, type Issue } from '@karyotome/core';
import { verifyFile, type Verification, type VerificationList } from '@karyotome/lineage';
import { expose } from 'comlink';

/** What was found of a file; or, where it is no lineage document, what is wrong with it. */
export type VerifyAnswer = Verification | VerificationList | { readonly refused: Issue };

const api = {
  async verify(bytes: Uint8Array): Promise<VerifyAnswer> {
    try {
      return await verifyFile(bytes);
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      return { refused: error.issues[0]! };
    }
  },
};
export type VerifyApi = typeof api;
expose(api);
