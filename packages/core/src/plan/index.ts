export { expectedSeconds, plannedLine, tenMinuteSheet, type PlannedLine, type TenMinutes } from './ten-minute-sheet';
