#include "app/stages/gallery/gallery_card.h"

#include "app/stages/gallery/gallery.h"

#include "app/plots/miniature.h"
#include "app/view/sketch.h"
#include "app/view/words.h"

#include <QKeyEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double drawingHeight = 92.0, margin = 12.0, soilRoom = 12.0; // px
constexpr double rounding = 6.0, lineHeight = 14.0;

} // namespace

GalleryCard::GalleryCard(ViewContext& context, std::string proposal, QWidget* parent)
    : QAbstractButton(parent), m_context(context), m_proposal(std::move(proposal))
{
    setObjectName(QStringLiteral("proposal ") + QString::fromStdString(m_proposal));
    setFixedSize(cardSize);
    setFocusPolicy(Qt::ClickFocus); // one card at a time is a stop of Tab
    setCursor(Qt::PointingHandCursor);
}

void GalleryCard::show(const GalleryDesk::Entry& entry, double scale)
{
    m_scale = scale;
    m_built = entry.answer ? entry.answer->built : entry.placed;
    m_supportTops.clear();
    m_poleTops.clear();
    for (const Id& id : entry.place().supports)
        if (const Support* s = findSupport(m_context.document.design(), id))
            m_supportTops.push_back({s->at.x, s->at.y, s->height});
    for (const advice::NewPole& pole : entry.place().allowed() ? entry.place().poles : std::vector<advice::NewPole>())
        m_poleTops.push_back({pole.at.x, pole.at.y, pole.height});
    m_squares.clear();
    m_wished = 0;
    for (const WantedBand& w : m_context.document.design().operation.bands) {
        if (w.wish == Wish::No)
            continue;
        ++m_wished;
        if (entry.answer)
            m_squares.push_back(entry.answer->service(w.id));
    }
    describe(entry);
    update();
}

void GalleryCard::describe(const GalleryDesk::Entry& entry)
{
    const units::System system = m_context.system();
    const shapes::Family& family = shapes::familyOf(entry.proposal.antenna.shape);
    m_title = coreWords(entry.proposal.title);
    m_reason = coreWords(entry.fault.empty() ? entry.proposal.fault() : entry.fault, system);
    m_figure.clear();
    QStringList bands, inPart;
    if (entry.answer) {
        const shapes::ParameterSpec* spec = family.spec(entry.answer->antenna.shape, entry.answer->what.parameter);
        const QString value = spec->quantity == units::Quantity::Length ? lengthWords(entry.answer->value, system, 2)
                                                                        : valueWords(entry.answer->value, spec->quantity, system);
        m_figure = tr("%1 %2").arg(value, coreWords(entry.answer->what.name));
        for (const WantedBand& w : m_context.document.design().operation.bands)
            if (const Service service = entry.answer->service(w.id); service != Service::No)
                (service == Service::Served ? bands : inPart) << QString::fromStdString(w.band.name);
    }
    QStringList tip{coreWords(family.summary())};
    if (const shapes::BuiltAntenna* built = entry.built()) {
        QStringList heights;
        for (const shapes::Handle& h : built->handles)
            heights << tr("%1 %2 high").arg(coreWords(h.name), lengthWords(h.at.z, system, 1));
        tip << heights.join(QStringLiteral(", "));
    }
    if (entry.answer)
        tip << tr("%1; %2 of wire. Serves %3%4.")
                   .arg(m_figure, lengthWords(entry.answer->wire, system, 1),
                        bands.isEmpty() ? tr("no wanted band") : bands.join(QStringLiteral(", ")),
                        inPart.isEmpty() ? QString() : tr("; in part %1").arg(inPart.join(QStringLiteral(", "))));
    QStringList held, beside;
    for (const Id& id : entry.place().supports)
        if (const Support* s = findSupport(m_context.document.design(), id))
            held << QString::fromStdString(s->name);
    if (!held.isEmpty())
        tip << tr("Held by %1.").arg(held.join(QStringLiteral(", ")));
    if (entry.place().allowed() && !entry.place().poles.empty())
        beside << (entry.place().poles.size() == 1 ? tr("a new pole") : tr("%n new poles", nullptr, int(entry.place().poles.size())));
    for (const advice::NewPole& pole : entry.place().allowed() ? entry.place().poles : std::vector<advice::NewPole>())
        tip << tr("It needs a pole of %1, %2 east and %3 north of the plan's corner.")
                   .arg(lengthWords(pole.height, system, 1), lengthWords(pole.at.x, system, 1), lengthWords(pole.at.y, system, 1));
    if (!entry.place().laid.empty())
        tip << tr("With %1.").arg(coreWords(entry.place().laid, system));
    m_beside = beside.join(QStringLiteral(", "));
    if (!m_reason.isEmpty())
        tip << tr("It does not fit as it is: %1.").arg(m_reason);
    setToolTip(tip.join(QLatin1Char('\n')));
    setAccessibleName(m_title);
    setAccessibleDescription(tip.join(QLatin1Char(' ')));
    const char* const ties[] = {"two supports", "one support", "no support portable"};
    m_search = QStringList{m_title,
                           tip.join(QLatin1Char(' ')),
                           bands.join(QLatin1Char(' ')),
                           coreWords(ties[int(entry.proposal.ties)]),
                           Gallery::wantWords(entry.proposal.severalBands ? Gallery::Want::Several : Gallery::Want::One),
                           !entry.proposal.severalBands && entry.answer && entry.answer->served() > 1
                               ? Gallery::wantWords(Gallery::Want::Harmonics)
                               : QString(),
                           entry.fromShed ? Gallery::wantWords(Gallery::Want::Shed) : QString()}
                   .join(QLatin1Char(' '))
                   .toLower();
}

void GalleryCard::paintEvent(QPaintEvent*)
{
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    Sketch sketch(painter, m_context.theme);
    const Colours& c = sketch.colours();
    const bool chosen = hasFocus() || underMouse();
    painter.setPen(QPen(chosen ? c.leaf : c.hairline, hasFocus() ? 2.0 : 1.0));
    painter.setBrush(isDown() || hasFocus() ? c.leafPale : c.card);
    painter.drawRoundedRect(QRectF(rect()).adjusted(1.0, 1.0, -1.0, -1.0), rounding, rounding);
    drawAntenna(sketch, QRectF(margin, 8.0, width() - 2.0 * margin, drawingHeight - 8.0));
    const double textWidth = width() - 2.0 * margin;
    const QString figure = m_figure.isEmpty() ? tr("being tuned …") : m_figure;
    const QString words = !m_reason.isEmpty() ? m_reason : m_beside.isEmpty() ? figure : tr("%1; %2").arg(figure, m_beside);
    const int room = m_reason.isEmpty() ? 3 : 4; // lines; the squares take that of the last
    const QStringList title = linesOf(m_title, textWidth, 2, true);
    constexpr double firstLine = 107.0;
    double y = firstLine;
    for (const QString& line : title + linesOf(words, textWidth, room - int(title.size()), false)) {
        const bool bold = y < firstLine + lineHeight * double(title.size());
        sketch.text({margin, y}, line, Qt::AlignLeft | Qt::AlignVCenter, {bold ? c.ink : c.inkSoft, 12, bold});
        y += lineHeight;
    }
    if (m_reason.isEmpty())
        drawSquares(sketch, QRectF(margin, 148.0, textWidth, 8.0));
}

/// What does not go on the last one ends in dots.
QStringList GalleryCard::linesOf(const QString& words, double width, int most, bool bold) const
{
    const QFontMetricsF metrics(m_context.theme.font(12, bold));
    QStringList lines{QString()};
    for (const QString& word : words.split(QLatin1Char(' '))) {
        const QString longer = lines.back().isEmpty() ? word : lines.back() + QLatin1Char(' ') + word;
        if (lines.size() < most && !lines.back().isEmpty() && metrics.horizontalAdvance(longer) > width)
            lines << word;
        else
            lines.back() = longer;
    }
    for (QString& line : lines)
        line = m_context.theme.elided(line, width, 12, bold);
    return lines;
}

void GalleryCard::drawAntenna(Sketch& sketch, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    QPainter& painter = sketch.painter();
    const double soil = area.bottom() - soilRoom;
    sketch.line({area.left(), soil}, {area.right(), soil}, c.inkFaint);
    painter.setPen(Qt::NoPen);
    painter.setBrush(c.inkFaint);
    for (int i = 0; i < 22; ++i)
        painter.drawEllipse(QPointF(area.left() + 4.0 + 6.2 * i, soil + 4.0 + 3.0 * (i % 2)), 0.7, 0.7);
    if (!m_built)
        return;
    const SideView view = sideViewOf(m_built->model);
    const auto lines = sideLines(m_built->model, view);
    double left = HUGE_VAL, right = -HUGE_VAL, top = 0.0;
    for (const auto& line : lines)
        for (QPointF p : line)
            left = std::min(left, p.x()), right = std::max(right, p.x());
    double into = 0.0; // the nearest point stands on the soil's line
    for (const Wire& w : m_built->model.wires)
        for (Vec3 p : w.points)
            into += dot(p, view.into) / double(w.points.size()) / double(m_built->model.wires.size());
    const auto height = [&](QPointF p) { return p.y() + 0.25 * into; };
    for (const auto& line : lines)
        for (QPointF p : line)
            top = std::min(top, height(p));
    double scale = m_scale; // what is larger than the rest is drawn smaller, and says so
    const double fits = std::min(area.width() / std::max(right - left, 1e-9), (soil - area.top()) / std::max(-top, 1e-9));
    while (scale > fits)
        scale *= 0.5;
    const auto place = [&](QPointF p) {
        return QPointF(area.center().x() + scale * (p.x() - 0.5 * (left + right)), soil + scale * height(p));
    };
    for (Vec3 s : m_supportTops) {
        const double x = area.center().x() + scale * (dot(s, view.across) - 0.5 * (left + right));
        if (x >= area.left() - 1.0 && x <= area.right() + 1.0)
            sketch.line({x, soil}, {x, std::max(area.top(), soil - scale * s.z)}, c.hairline, 2.0);
    }
    for (Vec3 s : m_poleTops) {
        const double x = area.center().x() + scale * (dot(s, view.across) - 0.5 * (left + right));
        if (x >= area.left() - 1.0 && x <= area.right() + 1.0)
            sketch.line({x, soil}, {x, std::max(area.top(), soil - scale * s.z)}, c.petal, 2.0, Qt::DotLine);
    }
    painter.setPen(QPen(m_reason.isEmpty() ? c.leaf : c.inkFaint, 1.8, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    painter.setBrush(Qt::NoBrush);
    for (const auto& line : lines) {
        QPolygonF points;
        for (QPointF p : line)
            points << place(p);
        painter.drawPolyline(points);
    }
    if (scale < m_scale)
        sketch.text({area.right(), area.top()}, tr("1 : %1").arg(std::lround(m_scale / scale)), Qt::AlignRight | Qt::AlignTop,
                    {c.inkFaint, 11});
}

void GalleryCard::drawSquares(Sketch& sketch, const QRectF& line) const
{
    const Colours& c = sketch.colours();
    constexpr double wide = 10.0, gap = 2.0;
    const double each = std::min(wide + gap, line.width() / std::max(1.0, double(m_wished)));
    for (std::size_t i = 0; i < m_wished; ++i) {
        const QRectF square(line.left() + double(i) * each, line.top(), each - gap, line.height());
        sketch.painter().setPen(Qt::NoPen);
        const Service service = i < m_squares.size() ? m_squares[i] : Service::No;
        sketch.painter().setBrush(service == Service::Served ? c.leaf : c.fill);
        sketch.painter().drawRoundedRect(square, 2.0, 2.0);
        if (service == Service::Partly)
            sketch.painter().fillRect(square.adjusted(1.0, 4.0, -1.0, -1.0), c.leafMid);
    }
}

namespace {

/// A letter or a figure, without a key that makes a command of it.
bool isTyping(const QKeyEvent& event)
{
    return !event.text().isEmpty() && event.text().front().isPrint() && event.key() != Qt::Key_Space &&
           !(event.modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier));
}

} // namespace

/// What is typed is searched for; the window's one-letter keys wait.
bool GalleryCard::event(QEvent* event)
{
    if (event->type() == QEvent::ShortcutOverride && isTyping(*static_cast<QKeyEvent*>(event))) {
        event->accept();
        return true;
    }
    return QAbstractButton::event(event);
}

void GalleryCard::focusInEvent(QFocusEvent* event)
{
    QAbstractButton::focusInEvent(event);
    emit focused();
}

void GalleryCard::keyPressEvent(QKeyEvent* event)
{
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter)
        click();
    else if (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right || event->key() == Qt::Key_Up || event->key() == Qt::Key_Down)
        emit stepped(event->key());
    else if (isTyping(*event))
        emit typed(event->text());
    else
        QAbstractButton::keyPressEvent(event);
}

} // namespace vetchling::app
