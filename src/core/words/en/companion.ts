// What a page says that runs a session by itself.
export const companionTexts = {
  start: 'Start',
  again: 'Once more',
  over: 'That was it. Well done.',
  comesNext: (title: string) => `Coming next: ${title}`,
  hold: 'Hold',
  goOn: 'Go on',
  done: 'Done, next',
  skip: 'Skip',
  back: 'Back',
  sides: { left: 'left', right: 'right' },
  reps: (count: number) => `x ${count}`,
  awake: 'The screen may fall asleep: this browser does not let it be kept awake.',
} as const
