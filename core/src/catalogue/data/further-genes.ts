/*
 * Genes that are seen less often, one a line: id | name | how it shows | name of the double | other words for it | markers
 * by zone. From memory, no source; who sees one otherwise corrects it in the collection's own additions. `s`: one copy
 * shows and two differ, `d`: dominant, `r`: recessive. Markers are apart by semicolons.
 */
export const FURTHER_GENES = `
ajax | Ajax | s | | | flanks: marks broken into columns; back: narrow stripe
alloy | Alloy | s | | | ground colour: bronze cast; head top: lighter crown
arroyo | Arroyo | s | | | flanks: marks flowing into one another; back: washed, sandy
bald | Bald | s | | | head top: pattern missing, plain; neck: pale
black-lace | Black Lace | s | | | back: fine dark net over the bands; flanks: lace edges
black-magic | Black Magic | s | | | ground colour: darkened throughout; flanks: few marks
carbon | Carbon | s | | | ground colour: charcoal cast; head top: darkened
cinder | Cinder | s | | | ground colour: ashy, contrast low; flanks: grey edges
circle | Circle | s | | | back: round marks in a row; flanks: round marks
congo | Congo | s | | | ground colour: darker, cleaner; back: narrow bands
copper | Copper | s | | | ground colour: coppery cast; head top: coppery crown
dot | Dot | s | | | back: single dots in the stripe; flanks: small dots in the marks
epic | Epic | s | | | flanks: marks running together; back: broken stripe
fader | Fader | s | | | ground colour: fades with each shed; flanks: soft edges
flare | Flare | s | | | flanks: flared marks at the belly; head top: lighter
frey | Frey | s | | | back: reduced, wide bands; head top: pale crown
gargoyle | Gargoyle | s | | | head top: heavy dark mark; back: blotched
glossy | Glossy | s | | | ground colour: shining, darker; head top: smooth and plain
gold-blush | Gold Blush | s | | goldblush | ground colour: golden blush; flanks: blushed marks
granite | Granite | s | | | ground colour: peppered all over; flanks: speckled marks
green-bean | Green Bean | d | | | back: bean-shaped marks; ground colour: olive cast
grim | Grim | s | | | head top: hood-like mark; neck: dark
harlequin | Harlequin | s | | harley | back: diamond-like marks; flanks: broken marks
hieroglyphic | Hieroglyphic | s | | hiero | flanks: marks like writing; back: broken bands
java | Java | s | | | ground colour: coffee brown; flanks: clean marks
jolt | Jolt | s | | | back: jagged stripe; flanks: jagged edges
joppa | Joppa | s | | | ground colour: lighter, yellowed; head top: pale
jungle-woma | Jungle Woma | s | | | back: wide broken bands; flanks: few marks
karma | Karma | s | | | ground colour: warmer; flanks: few dots in the marks
lace | Lace | s | | | flanks: lace-like edges; belly edge: fine speckles
magma | Magma | s | | | ground colour: reddish blush; flanks: bleeding edges
malum | Malum | s | | | head top: darkened, marked; flanks: crowded marks
mandarin | Mandarin | s | | | ground colour: orange cast; lips: orange edge
marble | Marble | s | | | back: swirled marks; flanks: marbled
melt | Melt | s | | | flanks: marks that run toward the belly; back: blurred
microscale | Microscale | s | Microscale Scaleless | micro scale | ground colour: scales small and uneven; head top: scales missing
mosaic | Mosaic | s | | | back: tiled marks; flanks: tiled marks
motley | Motley | s | | | back: ladder of bands; flanks: reduced
nanny | Nanny | s | | | ground colour: lighter; head top: pale crown
nova | Nova | s | | | flanks: star-like marks; ground colour: brighter
odium | Odium | s | | | ground colour: darker, greyed; back: thin stripe
onyx | Onyx | s | | | ground colour: blackened; head top: black
orange-belly | Orange Belly | s | | ob | belly edge: orange wash; flanks: warm flames
oriole | Oriole | s | | | ground colour: yellow and dark strongly apart; head top: dark
paint | Paint | s | | | flanks: smeared marks; back: brushed edges
pixel | Pixel | s | | | ground colour: pixelled edges; flanks: square edges
quake | Quake | s | | | back: zigzag stripe; flanks: cracked marks
razor | Razor | s | | | back: sharp thin stripe; flanks: sharp edges
rio | Rio | s | | | back: wandering stripe; ground colour: warmer
sable | Sable | s | | | ground colour: dark brown; head top: dark brown
sandblast | Sandblast | s | | sand blast | ground colour: grainy, pale; flanks: grainy
satin | Satin | s | | | ground colour: silky, smooth; flanks: soft edges
saturn | Saturn | s | | | back: ringed marks; flanks: ringed marks
scrambler | Scrambler | s | | | back: scrambled bands; flanks: scrambled marks
shatter | Shatter | s | | | back: shattered bands; flanks: splintered marks
shredder | Shredder | s | | | flanks: shredded edges; back: shredded edges
smuggler | Smuggler | s | | | back: cleaner bands; ground colour: darker, richer
splatter | Splatter | s | | | flanks: splashes between the marks; back: splashes
static | Static | s | | | ground colour: grey grain; back: grain in the bands
storm | Storm | s | | | ground colour: clouded grey; flanks: clouded
stranger | Stranger | s | | | back: irregular bands; head top: irregular mark
strawberry | Strawberry | s | | strawb | ground colour: pinkish blush; flanks: pink edges
surge | Surge | s | | | back: waves along the stripe; flanks: wavy marks
taronja | Taronja | s | | | ground colour: orange, warm; head top: pale
trojan | Trojan | s | | | head top: helmet-like mark; flanks: thick edges
vesper | Vesper | s | | | ground colour: dusky; flanks: shaded marks
volt | Volt | s | | | back: sharp zigzags; ground colour: bright
vudoo | Vudoo | s | | voodoo | head top: mask-like mark; back: striped
web | Web | s | | | back: web of thin lines; flanks: thin lines
whitewash | Whitewash | s | | white wash | flanks: white wash from the belly up; belly edge: white
wrecking-ball | Wrecking Ball | s | | | back: large round gaps; flanks: crushed marks
zuwadi | Zuwadi | s | | | ground colour: paler; flanks: dotted marks
atomic | Atomic | r | | | ground colour: glowing yellow; eyes: pale
banshee | Banshee | r | | | ground colour: very pale; head top: white mask
bengal | Bengal | r | | | back: tiger-like bands; ground colour: bright orange
black-axanthic | Black Axanthic | r | | | ground colour: black and white, staying so
cryptic | Cryptic | r | | | head top: dark over all of it; back: hidden stripe
crypton | Crypton | r | | | back: lace in the stripe; flanks: broken lace
dilute | Dilute | r | | | ground colour: thinned to grey; eyes: lighter
faded | Faded | r | | | ground colour: fading with age to plain
genetic-banded | Genetic Banded | r | | banded | back: clean whole bands; flanks: bands down to the belly
ghost-b | Ghost B | r | | hypo b | ground colour: as under a haze
axanthic-d | Axanthic D | r | | ax d | ground colour: black, silver and grey as a hatchling
leucistic | Leucistic | r | | | ground colour: white; eyes: dark
maple | Maple | r | | | ground colour: reddish brown; flanks: leaf-like marks
metal-flake | Metal Flake | r | | | ground colour: silvery flakes
migraine | Migraine | r | | | back: zigzag all along; head top: zigzag mark
monarch | Monarch | r | | | back: wing-like marks; ground colour: orange
moray | Moray | r | | | back: eel-like stripe; flanks: dotted
patternless | Patternless | r | | | back: no pattern; flanks: no pattern
rainbow | Rainbow | r | | | ground colour: several hues, glowing; eyes: pale
sentinel | Sentinel | r | | | back: row of marks like guards; flanks: few marks
snowflake | Snowflake | r | | | flanks: white flecks; back: white flecks
topaz | Topaz | r | | | ground colour: amber; eyes: lighter
whirlwind | Whirlwind | r | | | back: spiralling bands; flanks: spiralling marks
zebra | Zebra | r | | | back: crosswise stripes; flanks: crosswise stripes
`;
