<script lang="ts">
  /** The work with the knife, in its order. */
  const STEPS = [
    ['Unplug everything', 'No cable connected; discharge yourself on bare metal; hold the module by its edges.'],
    ['Print and check', 'Print at 100 %, never “fit to page”, and hold a ruler against the 50 mm bar.'],
    [
      'Cut with the liners on',
      'A sharp blade along a ruler, from edge to edge; the band first, then the pieces out of it.'
    ],
    ['Dry fit', 'Lay the pieces on with both liners, close the case without force, and open it again.'],
    [
      'Look at the imprint',
      'An even imprint on both faces of every pad. None at a chip: the gap is wider; note it under Board and pads.'
    ],
    [
      'Peel both liners',
      'One from each face, at the end; a liner that stays in is an air gap. Touch the pads at their edges only.'
    ],
    ['Close it', 'Screws snug, not tight; the lid even all round. Never press a lid shut.']
  ] as const;
</script>

<h2>In this order</h2>
<ol>
  {#each STEPS as [what, how] (what)}<li><strong>{what}.</strong> {how}</li>{/each}
</ol>
<p class="small quiet">
  Dashed: the straight cut that leaves the rest of the pad whole. Pads that carry a warning of the maker are worked with
  as it says; a metal label stays on the drive, and a warranty may hang on any label.
</p>

<style>
  h2 {
    margin: 0 0 6px;
  }
  li {
    margin: 0 0 6px 1.3em;
    list-style: decimal;
  }
</style>
