// On a slow phone the scripts of the page are on their way for a second. What they are drawn with takes a third of one
// to work out and is done meanwhile: first the page is sent for, then the system of styles is laid out. Nothing that is
// imported here may need the page's own scripts, or it would wait for them.
import "./sendForPage"
import "./app/theme"
