import 'reflect-metadata';
import { makeTemplate } from './test-server';

export default makeTemplate;
