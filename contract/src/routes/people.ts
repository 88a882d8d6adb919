import type {
  collectionChoice,
  invitationInput,
  invitationToken,
  joining,
  factorCodeInput,
  forgottenPassword,
  memberChange,
  newPasskey,
  passwordChange,
  passwordGiven,
  passwordReset,
  tokenInput,
} from '../session-requests.ts';
import type {
  DeviceView,
  InvitationOffer,
  InvitationView,
  MemberView,
  NewInvitation,
  NewToken,
  PasskeyOptions,
  PasskeyView,
  RecoveryCodes,
  SecondFactorStart,
  SecondFactorView,
  SessionView,
  TokenView,
} from '../session-responses.ts';
import { HISTORY_FILTERS, type HistoryLine } from '../history.ts';
import { acts, lists, reads, writes } from './route.ts';

/** The account of whoever is signed in, and who else may use the collection. */
export const peopleRoutes = {
  changePassword: writes<void, typeof passwordChange>()('put', '/account/password', 'Change the password', {
    permission: 'own',
    status: 204,
  }),
  resetPassword: writes<void, typeof passwordReset>()(
    'post',
    '/account/reset',
    'Choose a new password by a link that was made for it',
    { permission: 'open', status: 204 },
  ),
  forgotPassword: writes<void, typeof forgottenPassword>()(
    'post',
    '/account/forgotten',
    'Have a link mailed by which another password is chosen; answered alike whether or not somebody has the address',
    { permission: 'open', status: 204 },
  ),
  secondFactor: reads<SecondFactorView>()('/account/second-factor', 'The second factor of the account', {
    permission: 'own',
  }),
  beginSecondFactor: writes<SecondFactorStart, typeof passwordGiven>()(
    'post',
    '/account/second-factor',
    'Set up an authenticator',
    { permission: 'own' },
  ),
  confirmSecondFactor: writes<RecoveryCodes, typeof factorCodeInput>()(
    'put',
    '/account/second-factor',
    'Turn the second factor on with a first code',
    { permission: 'own' },
  ),
  newRecoveryCodes: writes<RecoveryCodes, typeof passwordGiven>()(
    'post',
    '/account/second-factor/recovery-codes',
    'Make other recovery codes',
    { permission: 'own' },
  ),
  removeSecondFactor: writes<void, typeof passwordGiven>()(
    'post',
    '/account/second-factor/off',
    'Turn the second factor off',
    { permission: 'own', status: 204 },
  ),
  passkeys: lists<PasskeyView>()(
    '/account/passkeys',
    'What the account can sign in with instead of a password',
    { key: 'id' },
    { permission: 'own' },
  ),
  passkeyOptions: writes<PasskeyOptions, typeof passwordGiven>()(
    'post',
    '/account/passkeys/options',
    'What an authenticator is asked, for a new passkey',
    { permission: 'own', status: 200 },
  ),
  addPasskey: writes<{ id: string }, typeof newPasskey>()('post', '/account/passkeys', 'Add a passkey', {
    permission: 'own',
  }),
  removePasskey: acts<void>()('delete', '/account/passkeys/:id', 'Remove a passkey', { permission: 'own' }),
  devices: lists<DeviceView>()(
    '/account/sessions',
    'Where the account is signed in',
    { key: 'id' },
    { permission: 'own' },
  ),
  endDevice: acts<void>()('delete', '/account/sessions/:id', 'Sign out elsewhere', { permission: 'own' }),
  endOtherDevices: acts<void>()('delete', '/account/sessions', 'Sign out everywhere else', {
    permission: 'own',
  }),
  tokens: lists<TokenView>()(
    '/account/tokens',
    'What programs of this person sign in with',
    { key: 'id' },
    { permission: 'own' },
  ),
  addToken: writes<NewToken, typeof tokenInput>()('post', '/account/tokens', 'Make a token for a program', {
    permission: 'own',
  }),
  revokeToken: acts<void>()('delete', '/account/tokens/:id', 'Revoke a token', { permission: 'own' }),
  chooseCollection: writes<SessionView, typeof collectionChoice>()(
    'put',
    '/session/collection',
    'Go to another collection',
    { permission: 'own' },
  ),
  history: lists<HistoryLine>()(
    '/history',
    'Every write, with what was and what is',
    { key: 'id', otherFilters: HISTORY_FILTERS },
    { permission: 'manage' },
  ),
  historyTable: reads<void>()('/history.csv', 'The history as a table', {
    permission: 'manage',
    format: 'csv',
    query: HISTORY_FILTERS,
  }),
  members: lists<MemberView>()(
    '/members',
    'Who may use the collection',
    { key: 'id' },
    { permission: 'manage' },
  ),
  changeMember: writes<void, typeof memberChange>()('put', '/members/:id', 'Change what somebody may do', {
    permission: 'manage',
    status: 204,
  }),
  removeMember: acts<void>()('delete', '/members/:id', 'Remove somebody', { permission: 'manage' }),
  invitations: lists<InvitationView>()(
    '/invitations',
    'Invitations that nobody has taken yet',
    { key: 'id' },
    { permission: 'manage' },
  ),
  invite: writes<NewInvitation, typeof invitationInput>()('post', '/invitations', 'Invite somebody', {
    permission: 'manage',
  }),
  withdrawInvitation: acts<void>()('delete', '/invitations/:id', 'Withdraw an invitation', {
    permission: 'manage',
  }),
  lookAtInvitation: writes<InvitationOffer, typeof invitationToken>()(
    'post',
    '/join/look',
    'What an invitation is to',
    { permission: 'open', status: 200 },
  ),
  join: writes<SessionView, typeof joining>()('post', '/join', 'Take an invitation', { permission: 'open' }),
};
