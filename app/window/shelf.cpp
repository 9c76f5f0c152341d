#include "app/window/shelf.h"

#include "app/plots/sketch.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double drawingWidth = 28.0, drawingHeight = 22.0;

/// The wires seen from the side in which they are widest, fitted into a unit square.
std::vector<std::vector<QPointF>> miniature(const Antenna& antenna)
{
    const auto built = shapes::buildOver(antenna.shape, {});
    if (!built)
        return {};
    double bearing = 0.0, widest = -1.0;
    for (int b = 0; b < 180; b += 15) {
        double low = HUGE_VAL, high = -HUGE_VAL;
        for (const Wire& w : built->model.wires)
            for (Vec3 p : w.points) {
                const double u = dot(p, shapes::towards(b));
                low = std::min(low, u), high = std::max(high, u);
            }
        if (high - low > widest)
            widest = high - low, bearing = b;
    }
    const Vec3 across = shapes::towards(bearing);
    QRectF box;
    std::vector<std::vector<QPointF>> lines;
    double x0 = HUGE_VAL, x1 = -HUGE_VAL, y0 = HUGE_VAL, y1 = -HUGE_VAL;
    for (const Wire& w : built->model.wires) {
        lines.emplace_back();
        for (Vec3 p : w.points) {
            // Seen a little from above, so that level wires that turn a corner do not fall on one line.
            const Vec3 into{-across.y, across.x, 0.0};
            const QPointF q(dot(p, across), -p.z - 0.25 * dot(p, into));
            lines.back().push_back(q);
            x0 = std::min(x0, q.x()), x1 = std::max(x1, q.x()), y0 = std::min(y0, q.y()), y1 = std::max(y1, q.y());
        }
    }
    const double scale = std::max({(x1 - x0) / drawingWidth, (y1 - y0) / drawingHeight, 1e-6});
    for (auto& line : lines)
        for (QPointF& p : line)
            p = {(p.x() - 0.5 * (x0 + x1)) / scale, (p.y() - 0.5 * (y0 + y1)) / scale};
    return lines;
}

} // namespace

AntennaTab::AntennaTab(const Theme& theme, QWidget* parent) : QWidget(parent), m_theme(theme)
{
    setFocusPolicy(Qt::TabFocus);
    setCursor(Qt::PointingHandCursor);
    connect(&theme, &Theme::changed, this, qOverload<>(&QWidget::update));
}

void AntennaTab::setAntenna(const Antenna& antenna, bool current)
{
    if (antenna == m_antenna && current == m_current)
        return;
    if (antenna.shape != m_antenna.shape)
        m_drawing = miniature(antenna);
    m_antenna = antenna;
    m_current = current;
    m_name = QString::fromStdString(antenna.name);
    setAccessibleName(m_current ? tr("%1, shown").arg(m_name) : m_name);
    setToolTip(m_name);
    if (size() != sizeHint())
        setFixedSize(sizeHint());
    update();
}

QSize AntennaTab::sizeHint() const
{
    return {int(std::min(150.0, m_theme.typeset(m_name, 13, m_current).size.width()) + drawingWidth + 32), 36};
}

void AntennaTab::paintEvent(QPaintEvent*)
{
    QPainter painter(this);
    Sketch sketch(painter, m_theme);
    const Colours& c = m_theme.colours();
    if (m_current || hasFocus()) {
        painter.setPen(hasFocus() ? QPen(c.leaf, 1.5) : QPen(Qt::NoPen));
        painter.setBrush(m_current ? QBrush(c.leafPale) : QBrush(Qt::NoBrush));
        painter.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 16, 16);
    }
    painter.setPen(QPen(m_current ? c.ink : c.inkSoft, 1.5, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    painter.setBrush(Qt::NoBrush);
    for (const auto& line : m_drawing) {
        QPainterPath path;
        for (std::size_t i = 0; i < line.size(); ++i) {
            const QPointF p = line[i] + QPointF(10 + 0.5 * drawingWidth, 0.5 * height());
            i == 0 ? path.moveTo(p) : path.lineTo(p);
        }
        painter.drawPath(path);
    }
    const QString words = m_theme.elided(m_name, 152.0, 13, m_current);
    sketch.text({18 + drawingWidth, 0.5 * height()}, words, Qt::AlignLeft | Qt::AlignVCenter,
                {m_current ? c.ink : c.inkSoft, 13, m_current});
}

void AntennaTab::mousePressEvent(QMouseEvent*) { emit chosen(); }

void AntennaTab::keyPressEvent(QKeyEvent* event)
{
    if (event->key() == Qt::Key_Space || event->key() == Qt::Key_Return)
        emit chosen();
    else
        QWidget::keyPressEvent(event);
}

Shelf::Shelf(StageContext& context, QWidget* parent)
    : QWidget(parent), m_context(context), m_mark(new QLabel(this)), m_name(new QLabel(this))
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
    layout->addSpacing(14);
    m_tabs = new QHBoxLayout;
    m_tabs->setSpacing(2);
    layout->addLayout(m_tabs);
    m_add = new QToolButton(this);
    m_add->setObjectName(QStringLiteral("addAntenna"));
    m_add->setToolTip(tr("Add an antenna (Ctrl+N)"));
    m_add->setAccessibleName(tr("Add an antenna"));
    connect(m_add, &QToolButton::clicked, this, &Shelf::addWanted);
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
    const Design& design = m_context.document.design();
    m_name->setText(QStringLiteral("%1%2").arg(QString::fromStdString(design.site.name),
                                               m_context.document.modified() ? QStringLiteral(" *") : QString()));
    while (m_shown.size() > design.antennas.size()) {
        m_shown.back()->hide();
        m_shown.back()->deleteLater();
        m_shown.pop_back();
    }
    while (m_shown.size() < design.antennas.size()) {
        const int index = int(m_shown.size());
        auto* tab = new AntennaTab(m_context.theme, this);
        tab->setObjectName(QStringLiteral("antennaTab%1").arg(index));
        connect(tab, &AntennaTab::chosen, this, [this, index] { m_context.document.setCurrent(index); });
        m_tabs->addWidget(tab);
        m_shown.push_back(tab);
    }
    for (std::size_t i = 0; i < m_shown.size(); ++i)
        m_shown[i]->setAntenna(design.antennas[i], int(i) == m_context.document.current());
}

void Shelf::paintEvent(QPaintEvent*)
{
    QPainter painter(this);
    painter.fillRect(rect(), m_context.theme.colours().paper);
    painter.fillRect(QRect(0, height() - 1, width(), 1), m_context.theme.colours().hairline);
}

Trail::Trail(StageContext& context, const std::vector<Stage*>& stages, QWidget* parent)
    : QWidget(parent), m_context(context), m_stages(stages)
{
    setFixedWidth(196);
    setObjectName(QStringLiteral("trail"));
    setAccessibleName(tr("Stages of the work"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
}

void Trail::setCurrent(int index)
{
    m_current = index;
    setAccessibleDescription(tr("%1: %2").arg(m_stages[std::size_t(index)]->name(), m_stages[std::size_t(index)]->summary()));
    update();
}

QRectF Trail::itemRect(int index) const
{
    const double pitch = std::min(82.0, (height() - 30.0) / double(m_stages.size()));
    return {8.0, 16.0 + pitch * index, width() - 8.0, std::min(62.0, pitch - 4.0)};
}

void Trail::paintEvent(QPaintEvent*)
{
    QPainter painter(this);
    Sketch sketch(painter, m_context.theme);
    const Colours& c = m_context.theme.colours();
    painter.fillRect(rect(), c.panel);
    painter.fillRect(QRect(width() - 1, 0, 1, height()), c.hairline);
    const QRectF current = itemRect(m_current);
    painter.setPen(hasFocus() ? QPen(c.leaf, 1.5) : QPen(Qt::NoPen));
    painter.setBrush(c.paper);
    painter.drawRoundedRect(current.adjusted(0, 0, 8, 0), 6, 6);
    sketch.line({30, 12}, {30, itemRect(int(m_stages.size()) - 1).bottom() + 10}, c.leafMid, 2.0);
    for (std::size_t i = 0; i < m_stages.size(); ++i) {
        const QRectF item = itemRect(int(i));
        sketch.leaf({30, item.top() + 31}, int(i) == m_current);
        sketch.text({60, item.top() + 11}, m_stages[i]->name(), Qt::AlignLeft | Qt::AlignTop, {c.ink, 15, true});
        const QString words = m_context.theme.elided(m_stages[i]->summary(), width() - 66.0, 12);
        sketch.text({60, item.top() + 32}, words, Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
    }
}

void Trail::mousePressEvent(QMouseEvent* event)
{
    for (std::size_t i = 0; i < m_stages.size(); ++i)
        if (itemRect(int(i)).contains(event->position()))
            emit chosen(int(i));
}

void Trail::mouseMoveEvent(QMouseEvent* event)
{
    bool over = false;
    for (std::size_t i = 0; i < m_stages.size(); ++i)
        over = over || itemRect(int(i)).contains(event->position());
    setCursor(over ? Qt::PointingHandCursor : Qt::ArrowCursor);
}

void Trail::keyPressEvent(QKeyEvent* event)
{
    const int last = int(m_stages.size()) - 1;
    if (event->key() == Qt::Key_Down)
        emit chosen(std::min(last, m_current + 1));
    else if (event->key() == Qt::Key_Up)
        emit chosen(std::max(0, m_current - 1));
    else
        QWidget::keyPressEvent(event);
}

} // namespace vetchling::app
