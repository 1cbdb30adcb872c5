/**
 * Every key there is, for the page of keys; the list behind `?` shows those that work where one is. A test holds this list and the
 * pages together.
 */
export const KEY_GROUPS: readonly { title: string; keys: readonly (readonly [key: string, what: string])[] }[] = [
  {
    title: 'Everywhere',
    keys: [
      ['Ctrl K', 'Find or do: the palette, also while one types (⌘ K on a Mac)'],
      ['/', 'The same, with one key'],
      ['?', 'The keys that work where one is'],
      ['n', 'New build'],
      ['Esc', 'Closes a dialog, a menu, an explanation']
    ]
  },
  {
    title: 'Go somewhere',
    keys: [
      ['g t', 'Today'],
      ['g c', 'The crate'],
      ['g b', 'The builds'],
      ['g p', 'Pair; inside a build its own'],
      ['g u', 'The items'],
      ['g f', 'Find an item by its tag'],
      ['g v', 'Paste a specification'],
      ['g r', 'Rank'],
      ['g j', 'Jobs'],
      ['g h', 'House rules'],
      ['g a', 'Several at once']
    ]
  },
  {
    title: 'Inside a build',
    keys: [
      ['g y', 'Buy'],
      ['g s', 'Pads and heat'],
      ['g m', 'Assemble'],
      ['g d', 'Format'],
      ['g e', 'Measure'],
      ['g l', 'Log']
    ]
  },
  {
    title: 'In Pair',
    keys: [
      ['j', 'The next part at the marked place'],
      ['k', 'The part before it'],
      ['l', 'Mark the next place of the chain'],
      ['h', 'Mark the place before it'],
      ['b', 'Back to the starting point'],
      ['t', 'Fold or unfold the ticket'],
      ['↑ ↓', 'In the figures: the next one and its working; Home and End for the first and the last']
    ]
  },
  {
    title: 'On Measure',
    keys: [['Space', 'Starts and stops the stopwatch, where no button or field has the focus']]
  }
];
