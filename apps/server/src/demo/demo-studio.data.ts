/** The made-up studio of the demo. Nobody in it exists. */
export const demoStudio = {
  studio: 'Orrin Stair Studio',
  teacher: 'Maren Tolvik',
  students: ['Pim', 'Oda', 'Wren', 'Jorun'],
} as const;

/** The demo's sign-in: no secret, shown on the page in demo mode. */
export const demoSignIn = { email: 'maren@orrin-stair.example', password: 'clean and slow' };
