export const languages = [
  { value: 'en', name: 'English' },
  { value: 'de', name: 'Deutsch' },
  { value: 'fr', name: 'Français' },
  { value: 'es', name: 'Español' },
  { value: 'da', name: 'Dansk' },
];

export const clocks = [
  { value: 'h24', text: '14:30' },
  { value: 'h12', text: '2:30 pm' },
] as const;
