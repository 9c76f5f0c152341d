#include "app/view/theme.h"

#include <QApplication>
#include <QFile>
#include <QFontDatabase>
#include <QPainter>
#include <QPalette>
#include <QSvgRenderer>

/// The resources live in a static library, which the linker would leave out.
static void initialiseResources() { Q_INIT_RESOURCE(resources); }

namespace vetchling::app {
namespace {

Colours dayColours()
{
    return {"#F6F4EC", "#EFECE0", "#E6E2D2", "#D3CDB9", "#23291F", "#5E6455", "#666B5B", "#3F6B3A",
            "#8FB083", "#D6E2CC", "#D9A400", "#F6E6A8", "#2F6DA8", "#D3E2EF", "#A9472B", "#FBFAF5"};
}

Colours nightColours()
{
    return {"#171B18", "#1D221E", "#262C27", "#39413A", "#E6E8DF", "#A9AFA2", "#8B9285", "#86B878",
            "#557A4C", "#2C3E2A", "#E8BC3A", "#4A3F18", "#7DB0DE", "#22384C", "#DB8062", "#1F2521"};
}

Colours paperColours()
{
    Colours c = dayColours();
    c.paper = c.panel = c.card = Qt::white;
    return c;
}

void loadFonts()
{
    static bool loaded = false;
    if (loaded)
        return;
    for (const char* file : {":/fonts/Lato-Regular.ttf", ":/fonts/Lato-Semibold.ttf", ":/fonts/Lato-Bold.ttf"})
        QFontDatabase::addApplicationFont(file);
    loaded = true;
}

} // namespace

Theme::Theme(QObject* parent) : QObject(parent), m_colours(dayColours()) { initialiseResources(); }

void Theme::setMode(Mode mode)
{
    if (mode == m_mode)
        return;
    m_mode = mode;
    m_colours = mode == Mode::Day ? dayColours() : mode == Mode::Night ? nightColours() : paperColours();
    m_typeset.clear();
    emit changed();
}

QFont Theme::font(int pixels, bool bold) const
{
    QFont font(QStringLiteral("Lato"));
    font.setPixelSize(pixels);
    font.setWeight(bold ? QFont::Bold : QFont::Normal);
    font.setHintingPreference(QFont::PreferVerticalHinting);
    if (m_mode == Mode::Paper) // keeps "fl" two letters that can be searched
        font.setStyleStrategy(QFont::PreferNoShaping);
    return font;
}

Typeset Theme::typeset(const QString& words, int pixels, bool bold) const
{
    const QString key = words + QChar(2 * pixels + (bold ? 1 : 0));
    if (const Typeset* known = m_typeset.object(key))
        return *known;
    Typeset set{font(pixels, bold), QStaticText(words), {}, 0.0};
    set.text.setTextFormat(Qt::PlainText);
    set.text.prepare({}, set.font);
    const QFontMetricsF metrics(set.font);
    set.size = {metrics.horizontalAdvance(words), metrics.height()};
    set.ascent = metrics.ascent();
    m_typeset.insert(key, new Typeset(set));
    return set;
}

QString Theme::elided(const QString& words, double width, int pixels, bool bold) const
{
    if (typeset(words, pixels, bold).size.width() <= width)
        return words;
    return QFontMetricsF(font(pixels, bold)).elidedText(words, Qt::ElideRight, width);
}

QIcon Theme::icon(const QString& name) const
{
    QFile file(QStringLiteral(":/icons/%1.svg").arg(name));
    if (!file.open(QIODevice::ReadOnly))
        return {};
    QIcon icon;
    const QByteArray source = file.readAll();
    for (const auto& [mode, colour] : {std::pair(QIcon::Normal, m_colours.ink), std::pair(QIcon::Disabled, m_colours.hairline)}) {
        QByteArray svg = source;
        svg.replace("currentColor", colour.name().toLatin1());
        QSvgRenderer renderer(svg);
        for (int size : {20, 40}) {
            QPixmap pixmap(size, size);
            pixmap.fill(Qt::transparent);
            QPainter painter(&pixmap);
            renderer.render(&painter);
            icon.addPixmap(pixmap, mode);
        }
    }
    return icon;
}

void Theme::apply(QApplication& application) const
{
    application.setStyleSheet({}); // from one sheet to another each widget is styled several times over
    applyFontAndPalette(application);
    application.setStyleSheet(styleSheet());
}

void Theme::applyFontAndPalette(QApplication& application) const
{
    loadFonts();
    application.setFont(font());
    QPalette p;
    const Colours& c = m_colours;
    p.setColor(QPalette::Window, c.paper);
    p.setColor(QPalette::WindowText, c.ink);
    p.setColor(QPalette::Base, c.card);
    p.setColor(QPalette::AlternateBase, c.panel);
    p.setColor(QPalette::Text, c.ink);
    p.setColor(QPalette::Button, c.panel);
    p.setColor(QPalette::ButtonText, c.ink);
    p.setColor(QPalette::Highlight, c.leafPale);
    p.setColor(QPalette::HighlightedText, c.ink);
    p.setColor(QPalette::ToolTipBase, c.card);
    p.setColor(QPalette::ToolTipText, c.ink);
    p.setColor(QPalette::PlaceholderText, c.inkFaint);
    p.setColor(QPalette::Link, c.sky);
    for (QPalette::ColorRole role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
        p.setColor(QPalette::Disabled, role, c.inkFaint);
    application.setPalette(p);
}

QString Theme::styleSheet() const
{
    QString sheet = QStringLiteral(R"(
* { font-family: "Lato"; font-size: 13px; color: @ink; }
QMainWindow, QDialog, QWidget#stageArea, QWidget#gallery, QWidget#galleryGrid { background: @paper; }
QWidget#ledgerBody { background: @paper; }
QScrollArea { border: none; background: transparent; }
QLineEdit, QComboBox, QPlainTextEdit { background: @card; border: 1px solid @hairline; border-radius: 4px; padding: 1px 8px; min-height: 20px; selection-background-color: @leafPale; selection-color: @ink; }
QLineEdit { qproperty-alignment: 'AlignRight|AlignVCenter'; }
QFileDialog QLineEdit, QInputDialog QLineEdit { qproperty-alignment: 'AlignLeft|AlignVCenter'; }
QLineEdit[wide="true"] { qproperty-alignment: 'AlignLeft|AlignVCenter'; }
QLineEdit:focus, QComboBox:focus, QPlainTextEdit:focus { border: 2px solid @leaf; padding: 0px 7px; }
QLineEdit[wrong="true"] { border: 2px solid @brick; padding: 0px 7px; }
QComboBox { combobox-popup: 0; }
QComboBox::drop-down { border: none; width: 18px; }
QComboBox::down-arrow { image: url(:/icons/chevron-@mode.svg); width: 10px; height: 10px; }
QComboBox QAbstractItemView { background: @card; border: 1px solid @hairline; selection-background-color: @leafPale; selection-color: @ink; outline: none; }
QComboBox QAbstractItemView::item { min-height: 22px; padding-left: 6px; }
QPushButton { border: 1px solid @leaf; border-radius: 4px; padding: 6px 12px; color: @leaf; background: transparent; font-weight: 600; }
QPushButton:hover { background: @leafPale; }
QPushButton[small="true"] { padding: 4px 4px; }
QPushButton:focus { border: 2px solid @leaf; padding: 5px 11px; }
QPushButton[small="true"]:focus { padding: 3px 3px; }
QPushButton:disabled { color: @inkFaint; border-color: @hairline; }
QPushButton[strong="true"] { background: @leaf; color: @paper; }
QPushButton[strong="true"]:hover { background: @leafMid; }
QPushButton[strong="true"]:focus { border: 2px solid @ink; }
QPushButton[strong="true"]:disabled { background: @fill; color: @inkFaint; }
QToolButton { border: none; border-radius: 4px; padding: 4px; background: transparent; }
QToolButton:hover { background: @leafPale; }
QToolButton:focus { border: 2px solid @leaf; padding: 2px; }
QToolButton:checked { background: @petalPale; }
QToolButton[fold="true"] { border: none; background: transparent; padding: 1px 4px 1px 0px; color: @inkSoft; font-size: 12px; font-weight: 700; }
QToolButton[segment="true"] { border: 1px solid @hairline; border-radius: 0px; padding: 4px 12px; background: @card; }
QToolButton[segment="true"]:focus { border: 2px solid @leaf; padding: 3px 11px; }
QToolButton[segment="true"]:checked { background: @leafPale; font-weight: 700; }
QToolButton::menu-indicator { image: none; }
QTabBar { background: transparent; qproperty-drawBase: 0; }
QTabBar::tab { background: transparent; border: none; border-radius: 15px; min-height: 30px; padding: 0px 12px 0px 10px; margin: 0px 2px; color: @inkSoft; }
QTabBar::tab:hover { background: @fill; }
QTabBar::tab:selected { background: @leafPale; color: @ink; font-weight: 700; }
QTabBar::tab:selected:focus { border: 2px solid @leaf; padding: 0px 10px 0px 8px; min-height: 26px; }
QTabBar::scroller { width: 40px; }
QTabBar QToolButton { background: @paper; border: 1px solid @hairline; border-radius: 4px; }
QListView#trail { background: @panel; border: none; outline: none; }
QMenu { background: @card; border: 1px solid @hairline; padding: 4px; }
QMenu::item { padding: 5px 24px 5px 14px; border-radius: 3px; }
QMenu::item:selected { background: @leafPale; }
QMenu::item:disabled { color: @inkFaint; }
QMenu::separator { height: 1px; background: @hairline; margin: 4px 8px; }
QToolTip { background: @card; color: @ink; border: 1px solid @hairline; padding: 4px; }
QProgressBar { border: none; border-radius: 2px; background: @fill; }
QProgressBar::chunk { border-radius: 2px; background: @leafMid; }
QCheckBox { spacing: 8px; }
QCheckBox::indicator { width: 14px; height: 14px; border: 1px solid @inkFaint; border-radius: 3px; background: @card; }
QCheckBox::indicator:checked { background: @leaf; border-color: @leaf; }
QCheckBox:focus { color: @leaf; }
QScrollBar:vertical { background: transparent; width: 8px; margin: 0; }
QScrollBar::handle:vertical { background: @hairline; border-radius: 4px; min-height: 24px; }
QScrollBar:horizontal { background: transparent; height: 8px; margin: 0; }
QScrollBar::handle:horizontal { background: @hairline; border-radius: 4px; min-width: 24px; }
QScrollBar::add-line, QScrollBar::sub-line { width: 0; height: 0; }
QScrollBar::add-page, QScrollBar::sub-page { background: transparent; }
QTableView { background: @paper; border: none; gridline-color: transparent; selection-background-color: @leafPale; selection-color: @ink; }
QTableView::item { border-bottom: 1px solid @hairline; padding: 2px 4px 2px 0px; }
QHeaderView { background: transparent; border: none; }
QHeaderView::section { background: @paper; border: none; border-bottom: 2px solid @hairline; color: @inkSoft; font-size: 12px; font-weight: 600; padding: 2px 4px 2px 0px; }
QLabel[role="heading"] { color: @inkSoft; font-size: 12px; font-weight: 700; }
QLabel[role="note"] { color: @inkSoft; font-size: 12px; }
QLabel[role="figure"] { font-weight: 700; }
QLabel[role="caution"] { color: @brick; font-size: 12px; }
QLabel[role="question"] { color: @sky; font-size: 12px; }
QLabel[role="title"] { font-size: 17px; font-weight: 700; }
QLabel[role="sentence"] { color: @inkSoft; }
QLabel[card="true"] { background: @petalPale; color: @ink; border-radius: 8px; padding: 8px 12px; }
QFrame[role="line"] { color: @hairline; background: @hairline; border: none; max-height: 1px; min-height: 1px; }
)");
    const Colours& c = m_colours;
    const std::pair<const char*, QColor> names[] = {
        {"@inkSoft", c.inkSoft}, {"@inkFaint", c.inkFaint},   {"@ink", c.ink},         {"@leafMid", c.leafMid}, {"@leafPale", c.leafPale},
        {"@leaf", c.leaf},       {"@petalPale", c.petalPale}, {"@petal", c.petal},     {"@paper", c.paper},     {"@panel", c.panel},
        {"@fill", c.fill},       {"@hairline", c.hairline},   {"@skyPale", c.skyPale}, {"@sky", c.sky},         {"@brick", c.brick},
        {"@card", c.card}};
    for (const auto& [name, colour] : names)
        sheet.replace(QLatin1String(name), colour.name());
    sheet.replace(QLatin1String("@mode"), m_mode == Mode::Day ? QStringLiteral("day") : QStringLiteral("night"));
    return sheet;
}

QPen variantPen(std::size_t row, const Colours& c, double width)
{
    const QColor colours[] = {c.leaf, c.sky, c.petal, c.brick};
    static const Qt::PenStyle styles[] = {Qt::SolidLine, Qt::DashLine, Qt::DotLine, Qt::DashDotLine};
    return {colours[row % 4], width, styles[(row + row / 4) % 4]};
}

} // namespace vetchling::app
