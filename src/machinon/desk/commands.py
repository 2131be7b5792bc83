"""Every command of the desk, declared once: menus and the key sheet follow."""

from msgspec import Struct


class Command(Struct, frozen=True):
    """A command: id, words, keys, and the menu it stands in."""

    id: str
    words: str
    keys: str = ""
    menu: str = ""


COMMANDS = (
    Command("job.new", "New Job…", "Ctrl+N", "Job"),
    Command("job.more", "Make Another Piece…", "Ctrl+Shift+N", "Job"),
    Command("job.less", "Take This Piece out of the Job", "", "Job"),
    Command("job.mates", "What It Goes With…", "", "Job"),
    Command("job.list", "Jobs and Shop", "Ctrl+Home", "Job"),
    Command("job.daybook", "Daybook", "Ctrl+D", "Job"),
    Command("shop.open", "What the Shop Owns", "Ctrl+O", "Job"),
    Command("reckoner", "Reckoner", "Ctrl+K", "Job"),
    Command("set_up", "Set-up Bench", "Ctrl+Shift+K", "Job"),
    Command("practice", "Practice", "Ctrl+Shift+L", "Job"),
    Command("devices", "Devices on a Wire", "Ctrl+Shift+D", "Job"),
    Command("survey.sheet", "Measuring Sheet as PDF…", "Ctrl+M", "Job"),
    Command("fits.sheet", "Fit Sheet, Page or List…", "Ctrl+Shift+M", "Job"),
    Command("route.sheet", "Route Sheet as PDF…", "Ctrl+Shift+T", "Job"),
    Command("job.sheet", "Proof Sheet as PDF…", "Ctrl+P", "Job"),
    Command("job.drawing_svg", "Drawing as SVG…", "", "Job"),
    Command("job.drawing_pdf", "Drawing as PDF…", "", "Job"),
    Command("job.files", "Piece for Other Programs…", "Ctrl+E", "Job"),
    Command("job.json", "Job as JSON…", "", "Job"),
    Command("desk.quit", "Close Machinon", "Ctrl+Q", "Job"),
    Command("file.open", "Open Another Shop…", "Ctrl+Shift+O", "Shop File"),
    Command("file.recent", "Recent Shops…", "", "Shop File"),
    Command("file.backup", "Back Up…", "Ctrl+B", "Shop File"),
    Command("file.restore", "Restore a Backup…", "", "Shop File"),
    Command("file.copy", "Save a Copy Elsewhere…", "", "Shop File"),
    Command("edit.undo", "Undo", "Ctrl+Z", "Edit"),
    Command("edit.redo", "Redo", "Ctrl+Y, Ctrl+Shift+Z", "Edit"),
    Command("devices.take", "Take the Figure Shown", "F8", "Edit"),
    Command("stage.survey", "Survey", "Ctrl+1", "Stage"),
    Command("stage.fits", "Fits", "Ctrl+2", "Stage"),
    Command("stage.piece", "Piece", "Ctrl+3", "Stage"),
    Command("stage.route", "Route", "Ctrl+4", "Stage"),
    Command("stage.cut", "Cut", "Ctrl+5", "Stage"),
    Command("stage.proof", "Proof", "Ctrl+6", "Stage"),
    Command("survey.piece", "Add a Piece…", "Ctrl+Shift+P", "Stage"),
    Command("survey.surface", "Add a Surface…", "Ctrl+Shift+S", "Stage"),
    Command("fits.fit", "Add a Fit…", "Ctrl+Shift+F", "Stage"),
    Command("step.lesson", "Note What Went Wrong…", "Ctrl+Shift+W", "Stage"),
    Command("view.angle", "Drawings in First or Third Angle", "", "View"),
    Command("view.units", "Millimetres or Inches First", "Ctrl+U", "View"),
    Command("view.theme", "Blued Steel or Paper", "Ctrl+T", "View"),
    Command("view.larger", "Larger Figures", "Ctrl++", "View"),
    Command("view.smaller", "Smaller Figures", "Ctrl+-", "View"),
    Command("view.machine", "At the Machine: Full Screen", "F11", "View"),
    Command("help.keys", "Keys", "F1", "Help"),
    Command("help.about", "About Machinon", "", "Help"),
)
