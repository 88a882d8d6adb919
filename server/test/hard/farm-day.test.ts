import { farmDayTests } from '../farm-days.ts';

/* From UTC-10 to UTC+14, with halves and quarters of hours, and with the clocks that change. */
farmDayTests([
  'Pacific/Honolulu',
  'America/Anchorage',
  'America/New_York',
  'America/St_Johns',
  'UTC',
  'Europe/Berlin',
  'Asia/Kolkata',
  'Asia/Kathmandu',
  'Australia/Lord_Howe',
  'Pacific/Chatham',
  'Pacific/Kiritimati',
]);
