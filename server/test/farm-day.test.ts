import { farmDayTests } from './farm-days.ts';

// The long form goes through more zones: npm run test:hard.
farmDayTests(['Pacific/Honolulu', 'Europe/Berlin', 'Pacific/Kiritimati']);
