#include "app/help/HelpPages.h"

#include <QCoreApplication>

namespace uq {

namespace {

constexpr HelpPage kPages[] = {
    // The tools.
    {"brush", UQ_HELP("The Brush"), UQ_HELP("paint draw pencil pen stroke lay tile place width broad"),
     UQ_HELP(
         "<p>Lays what is in hand: one cell with a click, a line of cells with a drag, 1 to 31 cells broad (<b>,</b> and "
         "<b>.</b>). A block is laid again at every multiple of its size, and never over itself in one stroke. "
         "<b>Shift</b> joins from where the last stroke ended.</p><p>The ghost shows the very pixels that will come, "
         "and the tag beside it names the layer. <b>Ctrl+left</b> takes cells away, <b>right</b> takes a tile from the "
         "map, <b>Esc</b> drops the stroke under way.</p>")},
    {"shapes", UQ_HELP("Box, Oval and Line"), UQ_HELP("rectangle circle ellipse straight shape outline hollow square"),
     UQ_HELP(
         "<p><b>3</b> Box and <b>7</b> Oval lay a filled shape or its outline (<b>,</b> and <b>.</b>), <b>6</b> Line a "
         "straight line. With <b>Shift</b> sides are equal, and lines follow the grid's ways. A block repeats from the "
         "corner. With <b>Ctrl</b> any of them takes away.</p>")},
    {"fill", UQ_HELP("Fill"), UQ_HELP("flood bucket region area replace all same"),
     UQ_HELP(
         "<p>Lays what is in hand on all cells that hang together with the one you click and are the same: the same "
         "tile, however it is turned, or a look-alike from one mix. Where the active layer is empty, the region is the "
         "one you see, of all layers. The tag says how many cells that are before you press.</p><p><b>Shift</b> takes "
         "all such cells of the layer, <b>Ctrl</b> empties them. A selection bounds the region.</p>")},
    {"landing", UQ_HELP("Where a stroke lands"), UQ_HELP("wrong layer which automatic covers grass wiped keeps new"),
     UQ_HELP(
         "<p>Taking a tile goes to the layer where such things belong: ground if it covers its cell, else things. What "
         "does not cover never wipes out what does: the stroke lands on the next nearer layer, or on a new one, and "
         "the tag says “keeps Paving”. A thing laid on a thing lands whole, where neither is wiped out.</p><p><b>W</b>, "
         "<b>S</b>, a click on a card or adding a layer chooses one that is then obeyed to the letter, take after take, "
         "as long as what you take fits it: what covers its cell fits layers for ground, everything else the others, "
         "and what lies there already fits. Else the tag says where it goes, and which key leads back.</p>")},
    {"depth", UQ_HELP("Depth, parallax and backdrops"), UQ_HELP("background sky scroll camera far near screen frame"),
     UQ_HELP(
         "<p>Drop pictures on the map and choose “Hang as backdrop”: each hangs behind all others and moves half as far "
         "as what is in front of it. The bar at the foot of a card says how far a layer moves for one pixel of camera: 0 "
         "stays with the screen, 1 goes with the ground, more is nearer than the ground.</p><p><b>B</b> shows the screen "
         "frame, and every layer moved as there: drag the frame by its edge or its tab, or let it go by itself with "
         "<b>Shift+B</b>. Strokes land where the ghost is, also then. What the screen shows is said in Map &gt; About the "
         "map, with the cloth behind all layers.</p>")},
    {"stack", UQ_HELP("The Stack"), UQ_HELP("layers folders group order height walker covered hidden holes gaps role"),
     UQ_HELP(
         "<p>The nearest layer is on top. The + between two cards adds a layer there, a right click on it offers pins and "
         "backdrops. Cards are dragged, and the number in a card's picture is its place from the farthest: type another "
         "in the sentences below. <b>Ctrl+G</b> puts the chosen cards (Ctrl+click) in a folder; what is dropped on the "
         "lower half of a folder's head lies in it, on the upper half in front of it. A folder with a rise is a level.</p>"
         "<p>The <b>Walker</b> card stands where the player's figure is drawn: drag it between the cards; a press colours "
         "what is in front of it warm and what is behind cool. <b>Shift+Z</b> does so around the active layer. Check &gt; "
         "Covered cells hatches what nearer layers hide whole, Strip takes it away, and Holes hatches where nothing covers "
         "the cloth, on maps with levels the gaps between two of them.</p><p>A backdrop that is active is moved by "
         "dragging it on the map, and drawn to the map's edges and middle; Ctrl leaves it where it is dropped.</p>")},
    {"chance", UQ_HELP("Mixes and chance"), UQ_HELP("random variation look-alikes scatter shuffle dice weights gather"),
     UQ_HELP(
         "<p><b>Shift+click</b> on the Table gathers tiles: each cell then takes one of them by chance, by its weight. "
         "The ghost shows the very tile that will come. <b>R</b> lets each come turned. <b>Shift+R</b> throws the last "
         "stroke, or the selection, again until it looks right; Ctrl+Z goes back through the throws.</p>")},
    {"stretch", UQ_HELP("Stretches"), UQ_HELP("platform wall hedge fence nine resize repeat ends middle length"),
     UQ_HELP(
         "<p><b>M</b> changes the manner in which a block is laid. As a stretch its ends are laid once and its middle as "
         "often as there is room: drag the whole thing to its size with Brush or Box. Afterwards its ends can be "
         "dragged, until the next press; a double click with Select brings them back. The marks in the picture under "
         "the Table say which columns and rows are ends.</p><p>With <b>middle by chance</b> the middle is not repeated "
         "in turn, and each of its tiles that is in a kept mix becomes any tile of that mix, by its weight; the ends "
         "stay. <b>,</b> and <b>.</b> choose another look for an end.</p>")},
    {"stamps", UQ_HELP("Stamps"), UQ_HELP("prefab object keep shelf reuse template assembled save piece"),
     UQ_HELP(
         "<p><b>K</b> keeps what is in hand on the Table, as does dropping its picture there: a house, a tree on two "
         "layers, a stretch, a mix. A click takes it on every map, and each part comes down on a layer of its role. "
         "Empty cells leave what is below.</p><p>A double click renames a stamp, a drag lays it elsewhere, a right click "
         "says how often it is laid, and corrects it with what is in hand or deletes it. A stamp refers to tiles, so it "
         "follows them when they are redrawn.</p>")},
    {"lens", UQ_HELP("The Lens"), UQ_HELP("look inspect which layer what lies cell under pick"),
     UQ_HELP(
         "<p>A middle click or <b>V</b> fans out what lies on a cell, layer by layer. From there go to a layer, take, "
         "move or delete its tile, or swap it for what is in hand, in the selection, on the map or on all maps.</p>")},
    {"taking", UQ_HELP("Taking from the map"), UQ_HELP("eyedropper pick copy block right button clone"),
     UQ_HELP(
         "<p>A <b>right click</b> takes the topmost tile and goes to its layer; again at the same place the one behind. "
         "A <b>right drag</b> takes what lies in a box on the active layer, with <b>Shift</b> on all layers you see, "
         "with <b>Ctrl</b> it is cut.</p>")},
    {"swap", UQ_HELP("Swapping tiles"), UQ_HELP("replace exchange change colour everywhere all"),
     UQ_HELP(
         "<p>In <b>Used here</b> drag one tile onto another: it becomes that one, in the selection if there is one, "
         "else on the whole map, with Shift on all maps. The foot line says how many cells first. The Lens swaps for "
         "what is in hand.</p>")},
    {"erase", UQ_HELP("Erase"), UQ_HELP("rubber delete remove clear eraser empty cells"),
     UQ_HELP("<p>Takes single cells away from the active layer. With Brush, <b>Ctrl+left</b> does the same without "
             "changing the tool, in the size of what is in hand.</p><p>Hold <b>2</b> while erasing, and the tool from "
             "before comes back when you let it go.</p>")},
    {"select", UQ_HELP("Select"), UQ_HELP("marquee choose region area rectangle cut copy paste move"),
     UQ_HELP(
         "<p>A drag selects cells, by a box or an outline; or a click selects what is the same, touching or everywhere "
         "(<b>,</b> and <b>.</b>). With <b>Shift</b> cells are added, with <b>Ctrl</b> taken away. Delete, cut, copy, "
         "move and turn act on the active layer, or on all that are seen. Paste takes what was copied into the hand, "
         "to be laid like anything else, also in another quilt.</p><p><b>Shift+W</b> and <b>Shift+S</b> move what is "
         "selected to another layer, <b>Q E A D</b> turn it, <b>Shift+4</b> fills it. A drag inside the selection, or the arrow keys, move it. While something is selected, "
         "painting keeps inside it. <b>Esc</b> drops the selection.</p>")},
    // The panels.
    {"table", UQ_HELP("The Table"), UQ_HELP("palette tileset tiles sheets pick source picture"),
     UQ_HELP(
         "<p>All tile sheets of the quilt lie on the Table, in piles by theme, and Chalk before them. A click takes a "
         "tile, a drag over several takes a block. Ctrl+wheel zooms, a middle drag moves the Table; its edge can be "
         "dragged to make it wider, and a press on that edge folds it. A click on a pile's name folds it; a click on a sheet's heading opens its card, a "
         "drag lays it elsewhere.</p><p><b>T</b> spreads the Table over the map: tapped, it stays until something is "
         "taken; held, until the key is let go. The arrows point, Shift and the arrows span a block, Enter takes. The "
         "little pictures over what is in hand show what was held last; <b>X</b> takes the one before.</p>")},
    {"room", UQ_HELP("Room for the map"), UQ_HELP("fold hide panels full screen larger dock sidebar collapse focus divide"),
     UQ_HELP(
         "<p>A press on the seam beside the map folds the Table or the Stack to a slim strip, a press on the strip brings "
         "it back; <b>Shift+T</b> and <b>Shift+L</b> do the same. <b>O</b> shows the map alone, and everything again. "
         "Seams are dragged, also those inside the panels, and stay where you left them.</p>")},
    {"by-keys", UQ_HELP("By keyboard alone"), UQ_HELP("keyboard accessibility mouse pane focus shortcut tab letters"),
     UQ_HELP(
         "<p><b>F6</b> goes from pane to pane, <b>Shift+F6</b> back: map, tape, Table, what is in hand, layers, sentences, "
         "overview, tabs. <b>Esc</b> leads to the map from all of them. Arrows move inside a pane, <b>Enter</b> chooses "
         "or takes, letters and digits work everywhere but in fields. Menus open by Alt and their letter, and every entry "
         "has one.</p>")},
    {"bring-in", UQ_HELP("Bringing pictures in"), UQ_HELP("import load add tileset spritesheet png drop open folder"),
     UQ_HELP(
         "<p>Drop pictures anywhere, or press <b>Ctrl+I</b>. One picture lies on the Table already cut: the cut is "
         "measured from its pixels. Many pictures, or a folder, become a collection, each a tile of its own size. A "
         "moving GIF becomes an animated tile. Nothing has to be confirmed; Ctrl+Z takes it back.</p><p>A copy of the "
         "picture is kept in the quilt, so it opens on every computer. A picture that you put into the folder "
         "<i>sheets</i> yourself waits on the Table to be cut.</p>")},
    {"sheet", UQ_HELP("A sheet's card"), UQ_HELP("cut slice size margin spacing border gap tile properties licence"),
     UQ_HELP(
         "<p>A click on a sheet's heading opens its card. The buttons at its top are likely cuts, the likeliest first, "
         "each with its reason; every number can be changed, and takes sums. What the cut leaves over is hatched. A "
         "wrong cut can be corrected at any time: painted tiles keep their pixels, whatever becomes of the cut.</p>"
         "<p>Below stand what may be done about the pixels, what the tiles do to somebody walking, where the sheet "
         "comes from, and what is said of the tiles that were chosen on it: name, tags, frames.</p>")},
    {"find-tile", UQ_HELP("Finding a tile"), UQ_HELP("search filter lost where used name colour tag number"),
     UQ_HELP(
         "<p>Point at the field over the Table and type, or press <b>Ctrl+F</b>: names, tags, sheets, numbers, "
         "<i>open</i>, <i>solid</i>, <i>overhead</i>, colours like <i>red</i> or <i>#a0563f</i>, <i>animated</i>, "
         "<i>used</i>. Every word must fit. Enter takes the first tile, a click any.</p><p><b>Used here</b> lists the "
         "tiles of this map with their counts: pointing at one lights its cells, a right click or <b>N</b> goes to "
         "its next place. <b>Fits here</b> lists tiles whose borders join the neighbours of the cell under the "
         "pointer.</p>")},
    {"living-sheet", UQ_HELP("Pictures that change"), UQ_HELP("reload refresh update external editor watch missing moved"),
     UQ_HELP(
         "<p>When another program saves a picture of the quilt, it shows at once. Tiles are recognised by their "
         "pixels: where rows were added or tiles moved, every painted cell keeps its tile. The foot line says what "
         "changed. A picture that is deleted is kept, and the next save writes it again; one that is missing when the "
         "quilt is opened can be pointed to by a click on its place.</p><p>“Follow the original” on a sheet's card "
         "refreshes the quilt's copy whenever the picture it came from is saved.</p>")},
    {"tidy", UQ_HELP("Tidying and exporting a sheet"), UQ_HELP("clean duplicate unused blank empty remove pack atlas write"),
     UQ_HELP(
         "<p>Tidy lists the blank, stray, double and unused tiles of a sheet, each kind on its own, with where they lie. "
         "A click on one keeps it. Nothing goes before you say so, maps look the same afterwards, and one step of undo "
         "brings all back.</p><p>Export writes the tiles into one picture, with the columns, gaps and order you "
         "choose.</p>")},
    {"frames", UQ_HELP("Animated tiles"), UQ_HELP("animation frames play moving water fire gif"),
     UQ_HELP(
         "<p>Choose the pictures of a tile on its sheet by a drag, open the sheet's card and press <b>Animate them</b>: "
         "the first one becomes a tile that shows them in turn. View > Play animated tiles lets them move, on the map "
         "and on the Table.</p>")},
    {"chalk", UQ_HELP("Chalk"), UQ_HELP("placeholder plan prototype rough block out colours greybox sketch"),
     UQ_HELP("<p>Sixteen plain colours that every quilt has from the start, to plan a map before there is any art. A "
             "chalk tile always fills its cell, whatever its size. Chalk is saved like any tile.</p>")},
    {"in-hand", UQ_HELP("In hand"), UQ_HELP("current held tile block turn rotate flip mirror"),
     UQ_HELP("<p>What the next stroke lays, as it will lie. <b>Q</b> and <b>E</b> turn it, <b>A</b> mirrors it across, "
             "<b>D</b> down, <b>Shift+Q</b> lays it straight again.</p>")},
    {"board", UQ_HELP("The Board and its seams"), UQ_HELP("world maps sew seam stitch rip wrap neighbour join connect chalk plan draw piece"),
     UQ_HELP(
         "<p><b>Ctrl+B</b> shows all maps as pieces on one cloth, and leads back. Drag a piece with its edge against another one's: "
         "the stitch shows where they would be sewn, letting go sews. <b>Shift</b> lays beside, <b>Ctrl</b> rips off, <b>Alt</b> is drawn "
         "to nothing. A right click, or the Menu key, does the rest; letters find a piece by its name.</p><p>Drag the chosen piece's edge "
         "onto its opposite one, and the map wraps. On bare cloth <b>Ctrl+drag</b> draws a new map, <b>Ctrl+Shift+drag</b> a chalk piece: a "
         "planned map with a name and a note, ticked by <b>Space</b>, cut by <b>Enter</b>; without a mouse <b>Ctrl+M</b> and <b>Insert</b> make them below the others.</p><p>Beyond the edge of a sewn map its neighbour "
         "shows, and strokes go on into it, on the layer of the same role; “Only this map” stops them at the stitch. A double click "
         "there, or <b>Ctrl+Enter</b> with the cell cursor, opens it.</p>")},
    {"doors", UQ_HELP("Pins, doorways and loose threads"), UQ_HELP("spot door doorway way exit entrance warp portal teleport travel start spawn link connect check problem world"),
     UQ_HELP(
         "<p>With <b>Pins</b> (<b>9</b>) a press places a spot, or chooses the one that is there; a drag moves it, or chooses what it frames; "
         "with <b>Shift</b> it makes a spot of several cells, with <b>Alt</b> one beside the middle of its cell. A press right outside the map makes "
         "the whole edge a spot, by which one leaves. Its name and where it leads stand under the Stack, and what is in hand may be its picture. Pointing "
         "at a doorway shows its other end.</p><p><b>L</b> takes a cord from the chosen spot, and the Board slides over: press the cell where it leads, or bare cloth for a "
         "new room. <b>Q</b> and <b>E</b> turn who arrives, <b>O</b> makes it one way. By keys: arrows go from map to map, <b>Shift</b> and "
         "arrows from cell to cell, <b>Enter</b> drops the cord, <b>Esc</b> puts it away. <b>Ctrl+click</b>, or <b>Enter</b>, goes through; <b>Alt+Left</b> comes "
         "back. <b>Ctrl+Shift+L</b>: the player begins here. On the Board the ways of the chosen pieces stand as sentences right of the cloth, and "
         "a numbered button of theirs is dragged to lead that end elsewhere.</p><p>What is wrong or suspicious is counted in the foot line. <b>Ctrl+Alt+L</b> "
         "lists it: a press leads there, a button mends what can be mended, and a kind that is meant so is silenced with the reason. In the "
         "demo one hangs loose on purpose: the hatch of Lantern Row leads up to Roof Market, and nothing leads down again.</p>")},
    {"canvas", UQ_HELP("The map"), UQ_HELP("canvas view zoom pan scroll navigate cursor keyboard"),
     UQ_HELP("<p>Ctrl+wheel zooms at the pointer, the wheel scrolls, a middle drag or Space and a drag move the view. "
             "<b>F</b> fits the whole map, <b>Shift+F</b> the selection, <b>0</b> shows 100 %.</p><p>Without a mouse: "
             "<b>Tab</b> leads to the map and a cell cursor appears. The arrows move it, <b>Enter</b> lays, "
             "<b>Ctrl+Enter</b> takes away, <b>Shift</b> and the arrows span a box first.</p>")},
    {"stack", UQ_HELP("The Stack"), UQ_HELP("layers order depth hide visible lock front behind z"),
     UQ_HELP(
         "<p>The layers of the map, nearest on top. The card with the red edge is the active layer, where strokes "
         "land; click another, or press <b>W</b> and <b>S</b>. The + between two cards adds a layer there. Drag a "
         "card to its place, double-click to rename it.</p><p>The eye hides a layer from you, the lock keeps strokes "
         "off it; neither changes the quilt.</p>")},
    {"layer-facts", UQ_HELP("What a layer is"), UQ_HELP("role opacity offset transparency alpha shift note property"),
     UQ_HELP(
         "<p>Under the cards stands what is known of the active layer, as sentences. Its role says what it is for, "
         "and binds it to layers of the same role on other maps. Numbers take sums like <b>23*16</b> or <b>+5</b>; the "
         "wheel and the arrow keys change them, too.</p>")},
    {"overview", UQ_HELP("The overview"), UQ_HELP("minimap small whole navigator thumbnail"),
     UQ_HELP("<p>The whole map, small. The red stitches show the part in sight: click or drag to see another.</p>")},
    {"tape", UQ_HELP("The tape"), UQ_HELP("toolbar tools numbers keys"),
     UQ_HELP(
         "<p>The tools, each with its number. A tap on the key chooses a tool. Held while the mouse is used, the tool "
         "from before comes back when the key is let go.</p>")},
    {"tabs", UQ_HELP("Maps and their tabs"), UQ_HELP("levels rooms scenes switch open list"),
     UQ_HELP("<p>Each open map has a tab; a dot means that it is not saved. <b>Ctrl+O</b> lists all maps with their "
             "pictures. A double click on a tab renames the map, a middle click closes the tab: the map stays in the "
             "quilt.</p>")},
    {"foot-line", UQ_HELP("The foot line"), UQ_HELP("status bar position coordinates size pixels"),
     UQ_HELP("<p>Left stands what mouse and keys do right now, right the cell and pixel under the pointer, counted "
             "from the "
             "map's corner, and the map's size in cells, pixels and screens.</p>")},
    {"new-map", UQ_HELP("A new map"), UQ_HELP("create level size grid cell tile dimensions width height"),
     UQ_HELP(
         "<p>Four lines, filled from the sheet in hand and the map you were on. The cell should be as large as the "
         "tiles of your art. Sizes are shown in cells, pixels and screens; every number takes sums. A map cannot be made "
         "larger or smaller yet: give it room enough.</p>")},
    // What people look for, there or not yet.
    {"footing", UQ_HELP("Solid, open, overhead"),
     UQ_HELP("collision collide walkable walk solid block wall physics hitbox obstacle passable footing"),
     UQ_HELP(
         "<p>The card of a sheet says what its tiles do to somebody walking: open, solid or overhead; tiles chosen on the "
         "sheet may differ. What is overhead is laid in front of the Walker.</p><p>Not yet: seeing all of it on the map, "
         "changing it cell by cell, outlines smaller than a cell, one-way edges, and checks where somebody can walk.</p>")},
    {"resize", UQ_HELP("Making a map larger or smaller"), UQ_HELP("resize size grow crop extend enlarge shrink canvas bounds trim"),
     UQ_HELP(
         "<p>Take an edge or a corner of the map, right outside its stitches, and drag it, whatever tool is chosen. "
         "<b>Shift</b> goes by whole screens of the player, <b>Ctrl</b> moves the opposite edge as far. While you drag, "
         "<b>1</b>, <b>2</b> and <b>3</b> say what new room gets: nothing, the last row again, or the ground again. "
         "Nothing that stays moves, to whichever side the map grows.</p><p>What you cut off is kept, as <b>seam "
         "allowance</b>: it is there again when the map grows. Map &gt; Drop the seam allowance takes it away. A double "
         "click on an edge cuts to what is used on that side, Map &gt; Cut to what is used on all.</p><p>Map &gt; Size…, or a press on "
         "the size in the foot line, takes it in words: <b>+5</b>, <b>64</b>, <b>3 screens</b>, <b>1920 px</b>. Not yet: "
         "inserting rows and columns in the middle.</p>")},
    {"terrain", UQ_HELP("Ground that joins by itself"),
     UQ_HELP("terrain transition shore edge border automatic coast path road join blend rules material edging"),
     UQ_HELP(
         "<p>Choose tiles of a sheet, or none for all of them, and press “Join these” on its card or in the Quilt menu. The <b>bench</b> shows at once what was "
         "understood: press a spot that is wrong and take the right tile, everything else is guessed anew with it. Materials are named, taken for one or for "
         "two there, and shapes that are missing come by turning or are cut together. A press on a material on the Table takes it into the hand; every tool "
         "lays what lies somewhere, and the borders follow; with <b>Ctrl</b> it is taken away. What is moved or pasted joins what it meets, and Check &gt; Join "
         "anew mends a whole layer.</p><p>Not yet: what hangs below a wall. Beside that <b>Fits here</b> "
         "lists the tiles that join the neighbours of a cell, and <b>J</b> stitches over sides where a picture is cut off.</p>")},
    {"try-out", UQ_HELP("Trying a map"), UQ_HELP("test play run preview walk walkabout character player try simulate"),
     UQ_HELP(
         "<p>Not yet: nobody walks through a map here. <b>B</b> shows what the player's screen shows, with every layer "
         "moved as there, and the Walker card in the Stack colours what is drawn in front of the figure and behind "
         "it.</p>")},
    {"game", UQ_HELP("Getting maps into a game"),
     UQ_HELP("export game engine json csv data format write out build publish code"),
     UQ_HELP(
         "<p>Quilt &gt; Export… shows what goes out. Press a form, and there is a target that can go at once: it says where, which "
         "maps, and what that form has no place for, and shows the beginning of what comes out. <b>Ctrl+E</b> writes again what has "
         "changed, while you go on. A map that is gone loses its files with the next export; the card says so before.</p>"
         "<p><b>JSON for a game</b> holds everything; <i>docs/exchange.md</i> describes it, and <i>examples</i> has readers to copy. "
         "<b>A form of your own</b> is a text that is filled in for each map; begin with one of the gallery.</p>"
         "<p>After saving, a command of yours may run; its line stays on this machine. <b>uquilt export</b> does all of it without a "
         "window.</p>")},
    {"from-elsewhere", UQ_HELP("Maps from pictures and tables"), UQ_HELP("import png csv screenshot recognise tiles load old map convert"),
     UQ_HELP(
         "<p>Quilt &gt; Map from a picture or tables…, or a picture dropped on the map, cuts the picture of a map back into the tiles of this quilt's sheets, turned ones "
         "too. What is in no sheet is counted, and becomes a sheet of its own if you like. Tables (CSV) become layers, one each, the "
         "farthest first: numbers or names of tiles.</p>")},
    {"film", UQ_HELP("How a map was made"), UQ_HELP("replay timelapse film video record history teaching"),
     UQ_HELP(
         "<p>Edit &gt; How it was made… plays back what was done on the map since the quilt was opened, as fast as you like; "
         "<b>Space</b> stops, arrow keys go step by step. It can be written as an animated WebP, or as a picture for each frame.</p>")},
    {"lost-work", UQ_HELP("Work that was not saved"), UQ_HELP("lost work crash recover autosave backup power killed restore"),
     UQ_HELP(
         "<p>What you did since the last save is kept on this machine some seconds after each step; the foot line says until "
         "when. After a crash or a power cut the next start shows it beside what was saved: <b>Enter</b> goes on with it, and "
         "<b>Ctrl+Z</b> leads back as before. What you leave lies aside, and <b>uquilt recover</b> brings it back.</p>"
         "<p>Quilt &gt; Save by itself saves every few minutes, or when you leave the window.</p>")},
    {"others", UQ_HELP("Files that others change"),
     UQ_HELP("git pull version control sync shared folder colleague merge conflict two windows lock read only script"),
     UQ_HELP(
         "<p>What somebody else changes in the quilt's folder comes in by itself, as one step that Ctrl+Z takes back. Where "
         "both of you changed the same part, you are asked once, with pictures of both. Files that are half written are "
         "waited for.</p><p>Who opens a quilt that is open elsewhere is told by whom and since when, and follows what is "
         "saved there; once it is closed there, Ctrl+S saves here.</p>")},
    {"packed", UQ_HELP("One file of a quilt"), UQ_HELP("pack zip archive send share mail backup unpack single file"),
     UQ_HELP("<p>Quilt &gt; Pack… writes all of a quilt into one file, to be sent or put away. Dropped on the window, or "
             "opened by Quilt &gt; Open packed quilt…, it becomes a folder again.</p>")},
    {"start", UQ_HELP("Quilts and the start page"), UQ_HELP("project folder new open recent demo example"),
     UQ_HELP(
         "<p>A quilt is one folder: all its maps and tile sheets lie in it, so it can be moved, copied or kept in "
         "version control as it is. The start page shows the quilts you worked on last. Several quilts may be open, "
         "each in its window.</p>")},
    {"saving", UQ_HELP("Saving"), UQ_HELP("save file lost backup atomic write crash"),
     UQ_HELP(
         "<p><b>Ctrl+S</b> writes what changed, all of it or nothing: an interrupted save leaves the quilt as it was. "
         "Painting goes on meanwhile. A file that another program changed is never overwritten.</p>")},
    {"undo", UQ_HELP("Undo and the list of steps"), UQ_HELP("undo redo history back revert mistake"),
     UQ_HELP(
         "<p><b>Ctrl+Z</b> takes back the newest step on the map you are on, without end; <b>Ctrl+Shift+Z</b> lays it "
         "back. Where a step on another map would go with it, you are told first. <b>Ctrl+Alt+Z</b> lists all steps: a "
         "click goes back to any of them.</p>")},
    {"themes", UQ_HELP("Light and dark"), UQ_HELP("theme night mode colours appearance"),
     UQ_HELP("<p>Linen is light, indigo is dark. The View menu chooses one, or follows the desktop.</p>")},
    // The refusals.
    {"refusal-locked", UQ_HELP("“… is locked”"), UQ_HELP("cannot paint refuse lock why nothing happens"),
     UQ_HELP("<p>The lock on the layer's card is shut, so no stroke lands on it. Click the lock, or choose Layers > "
             "Lock or "
             "unlock the layer.</p>")},
    {"refusal-hidden", UQ_HELP("“… is hidden”"), UQ_HELP("cannot paint refuse eye invisible why nothing happens"),
     UQ_HELP(
         "<p>The eye on the layer's card is shut. You would not see what you paint, so nothing is painted. Click the "
         "eye, or choose another layer with W and S.</p>")},
    {"refusal-no-hand", UQ_HELP("“Nothing is in hand”"), UQ_HELP("cannot paint refuse empty tile why nothing happens"),
     UQ_HELP("<p>There is nothing to lay yet. Click a tile on the Table, or right-click one on the map.</p>")},
    {"refusal-turn", UQ_HELP("“… may not be turned”"), UQ_HELP("rotate flip mirror refuse cannot why nothing happens"),
     UQ_HELP("<p>The sheet's card says that its tiles must not be turned or mirrored so, because the game cannot show "
             "that. Change it there, or give the tile another side.</p>")},
    {"refusal-family", UQ_HELP("“What is in hand was put together from …”"),
     UQ_HELP("cannot paint refuse grid hexagon diamond square shape why nothing happens"),
     UQ_HELP(
         "<p>A block of several tiles keeps its shape only on the grid it was taken for: squares, diamonds, pointy or "
         "flat hexagons. Take it anew from the Table while you are on this map. A single tile goes anywhere.</p>")},
    {"refusal-outside", UQ_HELP("“Outside the selection”"), UQ_HELP("cannot paint refuse selected why nothing happens"),
     UQ_HELP("<p>Something is selected, and painting keeps inside it. Esc drops the selection.</p>")},
    {"refusal-take", UQ_HELP("“Nothing to take here”"), UQ_HELP("pick right click empty refuse"),
     UQ_HELP(
         "<p>A right click takes the topmost tile whose pixels are under the pointer. There is none here on any layer "
         "that you see.</p>")},
    {"refusal-no-layer", UQ_HELP("“This map has no layer”"),
     UQ_HELP("cannot paint refuse empty stack why nothing happens"),
     UQ_HELP("<p>A stroke needs a layer to land on. The + in the Stack adds one.</p>")},
    {"refusal-damaged", UQ_HELP("“This map cannot be changed”"), UQ_HELP("broken damaged file error refuse read"),
     UQ_HELP(
         "<p>A file of this map could not be read whole. What could be read is shown, and the map is protected, so "
         "that "
         "saving does not destroy the rest. Mend the file that is named, for instance from version control, and open "
         "the quilt again.</p>")},
    {"refusal-copied", UQ_HELP("“… is of the sheet …, which this quilt lacks”"), UQ_HELP("paste clipboard refuse cannot"),
     UQ_HELP("<p>What was copied in another quilt is of a sheet that this one does not have. Bring that picture in, "
             "then paste again: the sheet is known by its picture or its name.</p>")},
    {"refusal-stretch", UQ_HELP("“This stretch needs … cells at least”"), UQ_HELP("small refuse cannot struck through middle"),
     UQ_HELP("<p>A stretch lays its ends whole, so it cannot be smaller than they are; without a middle it cannot grow "
             "that way. Move the marks in the picture under the Table, or press M for another manner.</p>")},
    {"refusal-kept", UQ_HELP("“… is kept already”"), UQ_HELP("stamp refuse twice same"),
     UQ_HELP("<p>What is in hand is that very stamp. Change it first, or correct the stamp by a right click on it.</p>")},
    {"refusal-throw", UQ_HELP("“Chance decided nothing”"), UQ_HELP("throw again refuse random nothing"),
     UQ_HELP("<p>The last stroke laid one thing. Gather several tiles with Shift+click, or press R, before the "
             "stroke.</p>")},
    {"refusal-parts", UQ_HELP("“… is hidden or locked, and a part belongs there”"), UQ_HELP("layers refuse stamp parts"),
     UQ_HELP("<p>What is in hand lies on several layers, and one of them takes no stroke. Open its eye or its "
             "lock.</p>")},
    {"refusal-empty-copy", UQ_HELP("“Nothing is painted there on this layer”"), UQ_HELP("copy cut refuse empty"),
     UQ_HELP("<p>Copy and cut act on the active layer, and it is empty in the selection. Choose the layer with W and S "
             "or by "
             "its card.</p>")},
    {"refusal-large-copy", UQ_HELP("“More than a million cells cannot be held at once”"),
     UQ_HELP("copy cut refuse big"),
     UQ_HELP("<p>What is in hand is drawn under the pointer while it moves, so it is bounded. Copy a smaller part, or "
             "duplicate the layer.</p>")},
};

}  // namespace

std::span<const HelpPage> helpPages() { return kPages; }

QString helpText(const char* text) { return QCoreApplication::translate("help", text); }

}  // namespace uq
