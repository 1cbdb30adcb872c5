import { setUp } from './setup.mjs';

setUp();
await import('tsx');
const { drawRooms } = await import('./lib/rooms.ts');
await drawRooms();
console.log('docs/architecture.md shows the rooms as they are.');
