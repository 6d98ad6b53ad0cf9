/** The languages that guests are written to in. */
export const languages = [
  { value: 'en', name: 'English' },
  { value: 'de', name: 'German' },
  { value: 'fr', name: 'French' },
  { value: 'es', name: 'Spanish' },
  { value: 'da', name: 'Danish' },
];
