import {
  ROUTES as R,
  type FirstStart,
  type InvitationInput,
  type Joining,
  type PasswordChange,
  type PasswordReset,
  type RoleChoice,
  type TokenInput,
} from '@karyotome/contract';
import { call, callAll, urlOf } from './call.ts';

/** The account of whoever is signed in, and who else may use the collection. */
export const peopleApi = {
  firstStart: () => call(R.firstStart, {}),
  startFarm: (body: FirstStart) => call(R.startFarm, { body }),
  changePassword: (body: PasswordChange) => call(R.changePassword, { body }),
  resetPassword: (body: PasswordReset) => call(R.resetPassword, { body }),
  history: (query: Readonly<Record<string, string>>) => call(R.history, { query }),
  historyTableUrl: (query: Readonly<Record<string, string>>) => urlOf(R.historyTable, {}, query),
  tokens: () => callAll(R.tokens),
  addToken: (body: TokenInput) => call(R.addToken, { body }),
  revokeToken: (id: string) => call(R.revokeToken, { params: { id } }),
  devices: () => callAll(R.devices),
  endDevice: (id: string) => call(R.endDevice, { params: { id } }),
  endOtherDevices: () => call(R.endOtherDevices, {}),
  chooseCollection: (collectionId: string) => call(R.chooseCollection, { body: { collectionId } }),
  members: () => callAll(R.members),
  changeMember: (id: string, body: RoleChoice) => call(R.changeMember, { params: { id }, body }),
  removeMember: (id: string) => call(R.removeMember, { params: { id } }),
  invitations: () => callAll(R.invitations),
  invite: (body: InvitationInput) => call(R.invite, { body }),
  withdrawInvitation: (id: string) => call(R.withdrawInvitation, { params: { id } }),
  lookAtInvitation: (token: string) => call(R.lookAtInvitation, { body: { token } }),
  join: (body: Joining) => call(R.join, { body }),
};
