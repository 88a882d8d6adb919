import {
  browserSupportsWebAuthn,
  startAuthentication,
  startRegistration,
  type PublicKeyCredentialCreationOptionsJSON,
  type PublicKeyCredentialRequestOptionsJSON,
} from '@simplewebauthn/browser';
import { ProblemError } from './client.ts';

/* What asks this device's authenticator, or one that is plugged in or near. */

export const hasAuthenticator = (): boolean => browserSupportsWebAuthn();

/** The person said no, waited too long, or has no passkey for this site: as every other refusal is told. */
function refused(error: unknown): never {
  if (!(error instanceof Error)) throw error;
  const detail =
    error.name === 'InvalidStateError'
      ? 'This device has a passkey of this account already.'
      : 'The device gave no passkey. Try again, or use the password.';
  throw new ProblemError({
    type: 'urn:karyotome:problem:no-passkey',
    title: 'No passkey',
    status: 400,
    detail,
  });
}

/** A new passkey for what the server asks. */
export const makePasskey = (options: object): Promise<object> =>
  startRegistration({ optionsJSON: options as PublicKeyCredentialCreationOptionsJSON }).catch(refused);

/** The answer of a passkey that the person chooses. */
export const askForPasskey = (options: object): Promise<object> =>
  startAuthentication({ optionsJSON: options as PublicKeyCredentialRequestOptionsJSON }).catch(refused);
