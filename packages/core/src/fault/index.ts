export { ZelpitFault, type FaultCode } from './zelpit-fault';
