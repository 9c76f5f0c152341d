#include "app/stages/gallery/answer_table.h"

#include "app/plots/miniature.h"
#include "app/view/sketch.h"
#include "app/view/words.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double headHeight = 26.0, square = 15.0; // px

/// Without inches: nobody buys wire by them, and the column has room for no more.
QString wholeWords(double metres, units::System system)
{
    constexpr double foot = 0.3048; // m
    return system == units::System::Metric ? AnswerTable::tr("%1 m").arg(std::lround(metres))
                                           : AnswerTable::tr("%1 ft").arg(std::lround(metres / foot));
}

QString percent(double part) { return AnswerTable::tr("%1 %").arg(std::lround(100.0 * part)); }

} // namespace

AnswerTable::AnswerTable(ViewContext& context, QWidget* parent) : Canvas(context, parent)
{
    setObjectName(QStringLiteral("answerTable"));
    setAccessibleName(tr("Answers, best first"));
    setAccessibleDescription(tr("Up and down choose, Enter hangs the chosen one"));
    setFocusPolicy(Qt::StrongFocus);
}

void AnswerTable::show(advice::AdvicePointer advice, DesignPointer design)
{
    m_advice = std::move(advice);
    m_design = std::move(design);
    m_bands.clear();
    if (m_design)
        std::copy_if(m_design->operation.bands.begin(), m_design->operation.bands.end(), std::back_inserter(m_bands),
                     [](const WantedBand& w) { return w.wish != Wish::No; });
    choose(m_chosen);
    setMinimumHeight(int(headHeight + rowHeight * double(m_advice ? m_advice->answers.size() : 0) + 2.0));
    update();
}

void AnswerTable::choose(const std::string& key)
{
    m_chosen = key; // while it is looked for, what was chosen stays so wherever it comes to rank
    m_row = 0;
    if (m_advice)
        for (std::size_t i = 0; i < m_advice->answers.size(); ++i)
            if (m_advice->answers[i].key() == key)
                m_row = int(i);
    update();
}

const advice::Answer* AnswerTable::chosen() const
{
    return m_advice && m_row >= 0 && m_row < int(m_advice->answers.size()) ? &m_advice->answers[std::size_t(m_row)] : nullptr;
}

void AnswerTable::pick(int row)
{
    if (!m_advice || row < 0 || row >= int(m_advice->answers.size()))
        return;
    m_row = row;
    m_chosen = m_advice->answers[std::size_t(row)].key();
    update();
    emit rowChosen();
}

std::size_t AnswerTable::mainBand() const
{
    for (std::size_t i = 0; i < m_bands.size(); ++i)
        if (m_design && m_bands[i].id == m_design->operation.favourite)
            return i;
    for (std::size_t i = 0; i < m_bands.size(); ++i)
        if (m_bands[i].wish == Wish::Must)
            return i;
    return 0;
}

QString AnswerTable::nameOf(const advice::Answer& answer) const
{
    QStringList names;
    for (const advice::TriedPointer& t : answer.antennas)
        names << QString::fromStdString(t->antenna.name);
    return names.join(tr(", and "));
}

QString AnswerTable::placeOf(const advice::Answer& answer) const
{
    QStringList places;
    for (const advice::TriedPointer& t : answer.antennas)
        places << QString::fromStdString(advice::placeWords(m_design ? *m_design : m_context.document.design(), t->place));
    return places.join(QStringLiteral("; "));
}

QString AnswerTable::givesUp(const advice::Answer& answer) const
{
    QStringList all;
    for (const Text& t : answer.givesUp)
        all << coreWords(t, m_context.system());
    return all.isEmpty() ? tr("nothing") : all.join(QStringLiteral("; "));
}

AnswerTable::Columns AnswerTable::columns(double width) const
{
    constexpr double figures = 214.0, leastName = 180.0; // px
    Columns c;
    const double bands = double(m_bands.size());
    c.each = bands > 6.0 ? 20.0 : 25.0;
    c.squares = c.name + std::max(leastName, width - c.name - c.each * bands - figures);
    c.heard = c.squares + c.each * bands + 62.0;
    c.wire = c.heard + 54.0;
    c.wish = c.wire + 44.0;
    c.worst = c.wish + 50.0;
    return c;
}

void AnswerTable::paintHead(Sketch& sketch, const Columns& at, double width) const
{
    const Colours& c = sketch.colours();
    const Sketch::Ink soft{c.inkSoft, 11};
    const double y = 0.5 * headHeight;
    for (std::size_t i = 0; i < m_bands.size(); ++i) {
        QString name = QString::fromStdString(m_bands[i].band.name);
        if (name.endsWith(QStringLiteral(" m")))
            name.chop(2);
        sketch.text({at.squares + (double(i) + 0.5) * at.each, y}, sketch.theme().elided(name, at.each + 4.0, 11),
                    Qt::AlignHCenter | Qt::AlignVCenter, soft);
    }
    if (!m_bands.empty() && m_design)
        sketch.text({at.heard, y},
                    tr("%1, %2°").arg(QString::fromStdString(m_bands[mainBand()].band.name)).arg(m_design->operation.aimElevation),
                    Qt::AlignRight | Qt::AlignVCenter, soft);
    sketch.text({at.wire, y}, tr("wire"), Qt::AlignRight | Qt::AlignVCenter, soft);
    sketch.text({at.wish, y}, tr("wish"), Qt::AlignRight | Qt::AlignVCenter, soft);
    sketch.text({at.worst, y}, tr("worst"), Qt::AlignRight | Qt::AlignVCenter, soft);
    sketch.line({0.0, headHeight - 0.5}, {width, headHeight - 0.5}, c.hairline);
}

/// Full as far as a part of the band is within the limit, pale as far as a tuner helps.
void AnswerTable::paintSquares(Sketch& sketch, QPointF at, double each, const advice::Answer& answer) const
{
    const Colours& c = sketch.colours();
    QPainter& p = sketch.painter();
    for (std::size_t i = 0; i < answer.bands.size(); ++i) {
        const advice::BandFigure& f = answer.bands[i].figure;
        const QRectF box(at.x() + (double(i) + 0.5) * each - 0.5 * square, at.y() - 0.5 * square, square, square);
        QPainterPath shape;
        shape.addRoundedRect(box, 3.0, 3.0);
        p.save();
        p.setClipPath(shape, Qt::IntersectClip);
        p.fillRect(QRectF(box.left(), box.bottom() - square * f.shareWithTuner, square, square * f.shareWithTuner), c.leafMid);
        p.fillRect(QRectF(box.left(), box.bottom() - square * f.share, square, square * f.share), c.leaf);
        p.restore();
        p.setPen(QPen(f.shareWithTuner > 0.0 ? c.leaf : c.hairline, 1.0));
        p.setBrush(Qt::NoBrush);
        p.drawPath(shape);
    }
}

void AnswerTable::paintRow(Sketch& sketch, std::size_t row, const Columns& at, double width) const
{
    const Colours& c = sketch.colours();
    const advice::Answer& a = m_advice->answers[row];
    const double top = headHeight + rowHeight * double(row), middle = top + 0.5 * rowHeight;
    if (int(row) == m_row && onScreen()) {
        sketch.painter().setPen(hasFocus() ? QPen(c.leaf, 1.5) : QPen(Qt::NoPen));
        sketch.painter().setBrush(c.leafPale);
        sketch.painter().drawRoundedRect(QRectF(1.0, top + 1.0, width - 2.0, rowHeight - 2.0), 5.0, 5.0);
    }
    sketch.text({8.0, middle}, QString::number(row + 1), Qt::AlignLeft | Qt::AlignVCenter, {c.leaf, 13, true});
    QPainter& p = sketch.painter();
    const double each = 34.0 / double(a.antennas.size());
    p.setPen(QPen(c.leaf, 1.5, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    for (std::size_t i = 0; i < a.antennas.size(); ++i)
        if (a.antennas[i]->built)
            for (const auto& line : miniature(a.antennas[i]->built->model, {each, 22.0})) {
                QPolygonF polygon;
                for (QPointF q : line)
                    polygon << QPointF(27.0 + double(i) * each, middle - 11.0) + q;
                p.drawPolyline(polygon);
            }
    const double room = at.squares - at.name - 10.0;
    sketch.text({at.name, middle - 8.0}, sketch.theme().elided(nameOf(a), room, 12, true), Qt::AlignLeft | Qt::AlignVCenter,
                {c.ink, 12, true});
    sketch.text({at.name, middle + 8.0}, sketch.theme().elided(tr("%1 · gives up: %2").arg(placeOf(a), givesUp(a)), room, 11),
                Qt::AlignLeft | Qt::AlignVCenter, {c.inkSoft, 11});
    paintSquares(sketch, {at.squares, middle}, at.each, a);
    const advice::BandFigure& heard = a.bands[mainBand()].figure;
    const auto cell = [&](double x, const QString& words, bool strong = false) {
        sketch.text({x, middle}, words, Qt::AlignRight | Qt::AlignVCenter, {strong ? c.leaf : c.ink, 12, strong});
    };
    cell(at.heard, heard.solved && a.bands[mainBand()].antenna ? decibelWords(heard.against) : QStringLiteral("–"), true);
    cell(at.wire, wholeWords(a.takes.wire, m_context.system()));
    cell(at.wish, percent(a.wish));
    cell(at.worst, a.exact ? percent(a.worst) : QStringLiteral("…"));
    sketch.line({0.0, top + rowHeight - 0.5}, {width, top + rowHeight - 0.5}, c.hairline);
}

void AnswerTable::render(Sketch& sketch, const QSizeF& size)
{
    sketch.painter().fillRect(QRectF({0, 0}, size), sketch.colours().paper);
    if (!m_advice || m_advice->answers.empty())
        return;
    const Columns at = columns(size.width());
    paintHead(sketch, at, size.width());
    for (std::size_t i = 0; i < m_advice->answers.size(); ++i)
        paintRow(sketch, i, at, size.width());
}

QString AnswerTable::tableText() const
{
    QString out = tr("rank\tantennas\tplace\twish\tat worst\ttakes\tscore\twire\tgives up\n");
    if (m_advice)
        for (std::size_t i = 0; i < m_advice->answers.size(); ++i) {
            const advice::Answer& a = m_advice->answers[i];
            out += QStringLiteral("%1\t%2\t%3\t%4\t%5\t%6\t%7\t%8\t%9\n")
                       .arg(QString::number(i + 1), nameOf(a), placeOf(a), percent(a.wish), percent(a.worst), percent(a.effort),
                            percent(a.score), lengthWords(a.takes.wire, m_context.system(), 1), givesUp(a));
        }
    return out;
}

/// The first one's with the headings above it.
QRect AnswerTable::chosenArea() const
{
    const double top = m_row == 0 ? 0.0 : headHeight + rowHeight * m_row;
    return QRectF(0.0, top, width(), headHeight + rowHeight * (m_row + 1) - top).toRect();
}

void AnswerTable::keyPressEvent(QKeyEvent* event)
{
    switch (event->key()) {
    case Qt::Key_Up: return pick(m_row - 1);
    case Qt::Key_Down: return pick(m_row + 1);
    case Qt::Key_Home: return pick(0);
    case Qt::Key_End: return pick(m_advice ? int(m_advice->answers.size()) - 1 : 0);
    case Qt::Key_Return:
    case Qt::Key_Enter: emit hangWanted(); return;
    default: Canvas::keyPressEvent(event);
    }
}

void AnswerTable::mousePressEvent(QMouseEvent* event) { pick(int((event->position().y() - headHeight) / rowHeight)); }
void AnswerTable::mouseDoubleClickEvent(QMouseEvent*) { emit hangWanted(); }
void AnswerTable::focusInEvent(QFocusEvent* event)
{
    Canvas::focusInEvent(event);
    update();
}
void AnswerTable::focusOutEvent(QFocusEvent* event)
{
    Canvas::focusOutEvent(event);
    update();
}

bool AnswerTable::event(QEvent* event)
{
    if (event->type() != QEvent::ToolTip)
        return Canvas::event(event);
    const auto* help = static_cast<QHelpEvent*>(event);
    const int row = int((help->pos().y() - headHeight) / rowHeight);
    if (!m_advice || help->pos().y() < headHeight || row >= int(m_advice->answers.size())) {
        QToolTip::hideText();
        return true;
    }
    const advice::Answer& a = m_advice->answers[std::size_t(row)];
    QStringList lines{nameOf(a), placeOf(a),
                      tr("brings %1 of what you want, takes %2, leaves %3").arg(percent(a.wish), percent(a.effort), percent(a.score)),
                      tr("gives up: %1").arg(givesUp(a))};
    for (std::size_t i = 0; i < a.influence.size(); ++i)
        if (std::abs(a.influence[i]) >= 1e3)
            lines << tr("%1: what hangs beside it moves its dip by %2 kHz")
                         .arg(QString::fromStdString(a.antennas[i]->antenna.name), numberWords(a.influence[i] / 1e3, 0));
    QToolTip::showText(help->globalPos(), lines.join(QLatin1Char('\n')));
    return true;
}

} // namespace vetchling::app
