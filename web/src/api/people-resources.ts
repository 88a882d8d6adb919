import {
  ROUTES as R,
  type InvitationInput,
  type Joining,
  type PasswordChange,
  type PasswordReset,
  type Role,
  type TokenInput,
} from '@karyotome/contract';
import { call, callAll } from './call.ts';

/** The account of whoever is signed in, and who else may use the collection. */
export const peopleApi = {
  changePassword: (body: PasswordChange) => call(R.changePassword, { body }),
  resetPassword: (body: PasswordReset) => call(R.resetPassword, { body }),
  tokens: () => callAll(R.tokens),
  addToken: (body: TokenInput) => call(R.addToken, { body }),
  revokeToken: (id: string) => call(R.revokeToken, { params: { id } }),
  devices: () => callAll(R.devices),
  endDevice: (id: string) => call(R.endDevice, { params: { id } }),
  endOtherDevices: () => call(R.endOtherDevices, {}),
  chooseCollection: (collectionId: string) => call(R.chooseCollection, { body: { collectionId } }),
  members: () => callAll(R.members),
  changeMember: (id: string, role: Role) => call(R.changeMember, { params: { id }, body: { role } }),
  removeMember: (id: string) => call(R.removeMember, { params: { id } }),
  invitations: () => callAll(R.invitations),
  invite: (body: InvitationInput) => call(R.invite, { body }),
  withdrawInvitation: (id: string) => call(R.withdrawInvitation, { params: { id } }),
  lookAtInvitation: (token: string) => call(R.lookAtInvitation, { body: { token } }),
  join: (body: Joining) => call(R.join, { body }),
};
