#include "app/window/shelf.h"

#include "app/plots/miniature.h"
#include "app/view/words.h"
#include "app/widgets/name_edit.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr QSize drawingSize{28, 22};
constexpr double widestName = 140.0; // px

QIcon iconOf(const WireModel& model, const QColor& ink)
{
    constexpr int density = 3; // for screens of up to that scale
    QPixmap pixmap(drawingSize * density);
    pixmap.setDevicePixelRatio(density);
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(ink, 1.5, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    for (const auto& line : miniature(model, drawingSize))
        painter.drawPolyline(line.data(), int(line.size()));
    return QIcon(pixmap);
}

} // namespace

AntennaBar::AntennaBar(ViewContext& context, QWidget* parent) : QTabBar(parent), m_context(context)
{
    setObjectName(QStringLiteral("antennaBar"));
    setAccessibleName(tr("Antennas of this site"));
    setDrawBase(false);
    setExpanding(false);
    setElideMode(Qt::ElideNone); // tabs scroll; only a very long name is shortened
    setUsesScrollButtons(true);
    setIconSize(drawingSize);
    setFocusPolicy(Qt::TabFocus);
    connect(this, &QTabBar::currentChanged, this, [this](int place) {
        if (place >= 0)
            m_context.document.setCurrent(tabData(place).toString().toStdString());
    });
}

/// The same width whether a tab is the current one, with its bold name, or not: choosing another moves none and scrolls none.
QSize AntennaBar::tabSizeHint(int place) const
{
    constexpr int around = 38; // px: the rounded ends, and between drawing and name
    QSize hint = QTabBar::tabSizeHint(place);
    hint.setWidth(drawingSize.width() + QFontMetrics(m_context.theme.font(13, true)).horizontalAdvance(tabText(place)) + around);
    return hint;
}

void AntennaBar::refresh()
{
    const QSignalBlocker quiet(this);
    const Design& design = m_context.document.design();
    while (count() > int(design.antennas.size()))
        removeTab(count() - 1);
    while (count() < int(design.antennas.size()))
        addTab(QString());
    if (m_mode != m_context.theme.mode())
        m_drawn.clear();
    m_mode = m_context.theme.mode();
    std::erase_if(m_drawn, [&](const auto& entry) { return !findAntenna(design, entry.first); });
    for (int place = 0; place < count(); ++place)
        refreshTab(place, design.antennas[std::size_t(place)]);
    setCurrentIndex(indexOfAntenna(design, m_context.document.current()));
}

void AntennaBar::refreshTab(int place, const Antenna& antenna)
{
    const QString name = QString::fromStdString(antenna.name), id = QString::fromStdString(antenna.id);
    const AntennaModel* model = m_context.models.find(antenna.id);
    const auto built = model ? model->built : nullptr;
    const auto drawn = m_drawn.find(antenna.id);
    if (tabData(place).toString() != id || drawn == m_drawn.end() || drawn->second != built) {
        setTabIcon(place, built ? iconOf(built->model, m_context.theme.colours().ink) : QIcon());
        m_drawn[antenna.id] = built;
    }
    setTabData(place, id);
    if (accessibleTabName(place) != name) {
        setTabText(place, m_context.theme.elided(name, widestName, 13, true));
        setAccessibleTabName(place, name);
    }
    setTabToolTip(place, model && model->fault ? tr("%1: %2").arg(name, coreWords(model->fault->message, m_context.system())) : name);
}

void AntennaBar::startRename()
{
    const Antenna* antenna = findAntenna(m_context.document.design(), m_context.document.current());
    if (!antenna)
        return;
    auto* edit = new NameEdit(this);
    edit->setObjectName(QStringLiteral("antennaName"));
    edit->setAccessibleName(tr("Name of the antenna"));
    edit->setName(QString::fromStdString(antenna->name));
    constexpr int least = 160; // px
    QRect place = tabRect(currentIndex()).adjusted(0, 4, 0, -4);
    place.setWidth(std::max(place.width(), least));
    place.moveRight(std::min(place.right(), width() - 1));
    edit->setGeometry(place);
    connect(edit, &NameEdit::named, this, [this, id = antenna->id](const QString& name) { emit renamed(id, name); });
    connect(edit, &QLineEdit::editingFinished, edit, &QObject::deleteLater);
    connect(edit, &NameEdit::abandoned, edit, &QObject::deleteLater);
    edit->show();
    edit->setFocus();
    edit->selectAll();
}

void AntennaBar::mouseDoubleClickEvent(QMouseEvent* event)
{
    if (tabAt(event->position().toPoint()) == currentIndex())
        startRename();
}

void AntennaBar::keyPressEvent(QKeyEvent* event)
{
    if (event->key() == Qt::Key_Delete)
        emit removeWanted();
    else
        QTabBar::keyPressEvent(event);
}

Shelf::Shelf(ViewContext& context, QWidget* parent)
    : QWidget(parent), m_context(context), m_mark(new QLabel(this)), m_name(new QLabel(this)), m_antennas(new AntennaBar(context, this))
{
    setFixedHeight(48);
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(12, 0, 14, 0);
    layout->setSpacing(8);
    m_mark->setPixmap(QIcon(QStringLiteral(":/icons/vetchling.svg")).pixmap(26, 26));
    m_mark->setAccessibleName(tr("Vetchling"));
    layout->addWidget(m_mark);
    m_name->setObjectName(QStringLiteral("designName"));
    m_name->setStyleSheet(QStringLiteral("font-size: 15px; font-weight: 700;"));
    layout->addWidget(m_name);
    layout->addSpacing(10);
    layout->addWidget(m_antennas, 0);
    m_add = new QToolButton(this);
    m_add->setObjectName(QStringLiteral("addAntenna"));
    m_add->setToolTip(tr("Add an antenna (Ctrl+Shift+A)"));
    m_add->setAccessibleName(tr("Add an antenna"));
    connect(m_add, &QToolButton::clicked, this, &Shelf::addWanted);
    connect(m_antennas, &AntennaBar::renamed, this, &Shelf::renamed);
    connect(m_antennas, &AntennaBar::removeWanted, this, &Shelf::removeWanted);
    layout->addWidget(m_add);
    layout->addStretch(1);
    m_tools = new QHBoxLayout;
    m_tools->setSpacing(6);
    layout->addLayout(m_tools);
    m_icons.emplace_back(m_add, QStringLiteral("plus"));
    refreshIcons();
}

QToolButton* Shelf::tool(const QString& icon, const QString& words, const QString& objectName)
{
    auto* button = new QToolButton(this);
    button->setObjectName(objectName);
    button->setToolTip(words);
    button->setAccessibleName(words);
    button->setIconSize({20, 20});
    m_tools->addWidget(button);
    if (!icon.isEmpty())
        m_icons.emplace_back(button, icon);
    refreshIcons();
    return button;
}

void Shelf::refreshIcons()
{
    for (const auto& [button, name] : m_icons)
        button->setIcon(m_context.theme.icon(
            name == QLatin1String("sun") && m_context.theme.mode() == Theme::Mode::Day ? QStringLiteral("moon") : name));
}

void Shelf::refresh()
{
    m_name->setText(QStringLiteral("%1%2").arg(QString::fromStdString(m_context.document.design().site.name),
                                               m_context.document.modified() ? QStringLiteral(" *") : QString()));
    m_antennas->refresh();
}

void Shelf::paintEvent(QPaintEvent*)
{
    QPainter painter(this);
    painter.fillRect(rect(), m_context.theme.colours().paper);
    painter.fillRect(QRect(0, height() - 1, width(), 1), m_context.theme.colours().hairline);
}

} // namespace vetchling::app
