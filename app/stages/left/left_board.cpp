#include "app/stages/left/left_board.h"

#include "app/view/finding_words.h"
#include "app/view/sketch.h"
#include "app/view/words.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPushButton>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double textX = 40.0, buttonWidth = 224.0, buttonHeight = 30.0, margins = 16.0; // px
constexpr double above = 12.0, titleHeight = 21.0, metaHeight = 17.0, below = 11.0, headHeight = 34.0;
constexpr int wordPixels = 13;

} // namespace

LeftBoard::LeftBoard(ViewContext& context, QWidget* parent) : Canvas(context, parent)
{
    setObjectName(QStringLiteral("leftBoard"));
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("What is left to do"));
}

void LeftBoard::setWhole(bool whole)
{
    if (whole == m_whole)
        return;
    m_whole = whole;
    m_chosen = 0;
    refresh();
}

bool LeftBoard::fresh() const { return (m_whole ? m_context.left.siteStanding() : m_context.left.standing()) == Standing::Whole; }

const advice::Finding* LeftBoard::chosen() const
{
    return m_chosen >= 0 && m_chosen < int(m_open.size()) ? &m_open[std::size_t(m_chosen)] : nullptr;
}

void LeftBoard::refresh()
{
    m_open.clear();
    m_done.clear();
    for (advice::Finding& f : m_whole ? m_context.left.siteWide() : m_context.left.findings())
        (f.open() ? m_open : m_done).push_back(std::move(f));
    m_chosen = std::clamp(m_chosen, 0, std::max(0, int(m_open.size()) - 1));
    makeButtons();
    layOut(QSizeF(size()));
    update();
}

/// As many as there are lines; those that stay keep the keys.
void LeftBoard::makeButtons()
{
    while (m_buttons.size() > m_open.size()) {
        m_buttons.back()->deleteLater();
        m_buttons.back()->hide();
        m_buttons.pop_back();
    }
    while (m_buttons.size() < m_open.size()) {
        auto* button = new QPushButton(this);
        button->setProperty("small", true);
        const std::size_t row = m_buttons.size();
        button->setObjectName(QStringLiteral("cure%1").arg(row));
        connect(button, &QPushButton::clicked, this, [this, row] {
            if (row < m_open.size()) {
                choose(int(row));
                act(advice::Finding(m_open[row]));
            }
        });
        m_buttons.push_back(button);
        button->show();
    }
    for (std::size_t i = 0; i < m_open.size(); ++i) {
        const advice::Finding& f = m_open[i];
        const QString label = f.cure ? coreWords(f.cure->label, m_context.system()) : goWords(f);
        m_buttons[i]->setText(m_context.theme.elided(label, buttonWidth - 14.0, 13, true));
        m_buttons[i]->setToolTip(label);
        m_buttons[i]->setAccessibleName(tr("%1: %2").arg(findingTitle(f, m_context.system()), label));
        m_buttons[i]->setEnabled(!f.cure || fresh()); // nothing is done to what was before
    }
}

double LeftBoard::textWidth(double width) const { return std::max(120.0, width - textX - buttonWidth - 2.0 * margins); }

void LeftBoard::layOut(const QSizeF& size)
{
    const QFontMetricsF metrics(m_context.theme.font(wordPixels));
    m_places.clear();
    double y = 0.0;
    for (std::size_t i = 0; i < m_open.size(); ++i) {
        const advice::Finding& f = m_open[i];
        const bool first = m_whole && (i == 0 || m_open[i - 1].antenna != f.antenna);
        const QRectF box =
            metrics.boundingRect(QRectF(0, 0, textWidth(size.width()), 1e4), Qt::TextWordWrap, findingSentence(f, m_context.system()));
        const double height = above + titleHeight + std::ceil(box.height()) + metaHeight + below, head = first ? headHeight : 0.0;
        m_places.push_back({y, head, head + height});
        if (i < m_buttons.size())
            m_buttons[i]->setGeometry(int(size.width() - buttonWidth - 8.0), int(y + head + 0.5 * (height - buttonHeight)),
                                      int(buttonWidth), int(buttonHeight));
        y += head + height;
    }
    m_bottom = y;
    const QRectF done =
        metrics.boundingRect(QRectF(0, 0, size.width() - textX - margins, 1e4), Qt::TextWordWrap, doneWords().join(QStringLiteral(" · ")));
    setMinimumHeight(int(m_bottom + 40.0 + done.height()));
}

QRectF LeftBoard::words(Sketch& sketch, const QRectF& area, const QString& text, const QColor& colour) const
{
    sketch.painter().setFont(m_context.theme.font(wordPixels));
    sketch.painter().setPen(colour);
    QRectF used;
    sketch.painter().drawText(area, Qt::TextWordWrap | Qt::AlignLeft | Qt::AlignTop, text, &used);
    return used;
}

void LeftBoard::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    if (m_places.size() != m_open.size())
        layOut(size);
    for (std::size_t i = 0; i < m_open.size(); ++i)
        paintRow(sketch, i, size);
    const QStringList done = doneWords();
    if (done.isEmpty())
        return;
    const QString checked = done.join(QStringLiteral(" · "));
    words(sketch, {4.0, m_bottom + 14.0, size.width() - 8.0, 400.0},
          m_open.empty() ? tr("Checked: %1.").arg(checked) : tr("Done: %1.").arg(checked), c.inkSoft);
}

/// Told by shape as well as by colour: a triangle warns, a square is not right, a disc is next, a ring waits.
void LeftBoard::paintSign(Sketch& sketch, QPointF at, const advice::Finding& finding) const
{
    const Colours& c = sketch.colours();
    QPainter& p = sketch.painter();
    constexpr double r = 9.0;
    p.setPen(Qt::NoPen);
    switch (finding.gravity) {
    case advice::Gravity::Danger:
        p.setBrush(c.brick);
        p.drawPolygon(QPolygonF({{at.x(), at.y() - 11.0}, {at.x() + 11.0, at.y() + 8.0}, {at.x() - 11.0, at.y() + 8.0}}));
        sketch.text({at.x(), at.y() + 1.5}, QStringLiteral("!"), Qt::AlignCenter, {c.paper, 13, true});
        return;
    case advice::Gravity::Wrong:
        p.setBrush(c.petal);
        p.drawRoundedRect(QRectF(at.x() - 8.0, at.y() - 8.0, 16.0, 16.0), 3.0, 3.0);
        sketch.text(at, QStringLiteral("×"), Qt::AlignCenter, {c.paper, 14, true});
        return;
    default: break;
    }
    const bool first = std::none_of(m_open.begin(), m_open.end(), [&](const advice::Finding& f) {
        return &f < &finding && f.antenna == finding.antenna && f.gravity == advice::Gravity::Next;
    });
    p.setBrush(first ? QBrush(c.leaf) : QBrush(Qt::NoBrush));
    p.setPen(QPen(first ? c.leaf : c.inkSoft, 1.6));
    p.drawEllipse(at, r - 1.0, r - 1.0);
    if (first) {
        p.setPen(QPen(c.paper, 2.0, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
        p.drawPolyline(QPolygonF({{at.x() - 2.0, at.y() - 4.0}, {at.x() + 2.5, at.y()}, {at.x() - 2.0, at.y() + 4.0}}));
    }
}

void LeftBoard::paintRow(Sketch& sketch, std::size_t row, const QSizeF& size) const
{
    const Colours& c = sketch.colours();
    const Place& place = m_places[row];
    const advice::Finding& f = m_open[row];
    if (place.head > 0.0) {
        const Antenna* antenna = findAntenna(m_context.document.design(), f.antenna);
        sketch.text({4.0, place.top + place.head - 8.0}, antenna ? QString::fromStdString(antenna->name) : tr("The site"),
                    Qt::AlignLeft | Qt::AlignBottom, {c.leaf, 14, true});
    }
    const double top = place.top + place.head;
    const QRectF box(0.0, top, size.width(), place.height - place.head);
    if (int(row) == m_chosen && onScreen()) {
        sketch.painter().setPen(hasFocus() ? QPen(c.leaf, 1.5) : QPen(Qt::NoPen));
        sketch.painter().setBrush(c.leafPale);
        sketch.painter().drawRoundedRect(box.adjusted(1.0, 2.0, -1.0, -3.0), 5.0, 5.0);
    }
    paintSign(sketch, {19.0, top + above + 9.0}, f);
    const double width = textWidth(size.width());
    sketch.text({textX, top + above - 1.0}, m_context.theme.elided(findingTitle(f, m_context.system()), width, 14, true),
                Qt::AlignLeft | Qt::AlignTop, {f.gravity == advice::Gravity::Danger ? c.brick : c.ink, 14, true});
    const QRectF used =
        words(sketch, {textX, top + above + titleHeight, width, box.height()}, findingSentence(f, m_context.system()), c.inkSoft);
    sketch.text({textX, used.isEmpty() ? top + above + titleHeight : used.bottom() + 2.0},
                tr("%1 · %2").arg(gravityWords(f.gravity), stageWords(f.stage)), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 11});
    if (!onScreen()) // a picture has no buttons
        sketch.text({size.width() - 8.0, box.center().y()}, f.cure ? coreWords(f.cure->label, m_context.system()) : QString(),
                    Qt::AlignRight | Qt::AlignVCenter, {c.leaf, 12, true});
    sketch.line({0.0, box.bottom() - 0.5}, {size.width(), box.bottom() - 0.5}, c.hairline);
}

QStringList LeftBoard::doneWords() const
{
    QStringList all;
    for (const advice::Finding& f : m_done)
        if (const QString words = inSentence(findingTitle(f, m_context.system())); !all.contains(words))
            all << words;
    return all;
}

QString LeftBoard::tableText() const
{
    QString out = tr("antenna\tgravity\tstage\twhat\twhat to do\tcure\n");
    for (const std::vector<advice::Finding>* list : {&m_open, &m_done})
        for (const advice::Finding& f : *list) {
            const Antenna* antenna = findAntenna(m_context.document.design(), f.antenna);
            out += QStringLiteral("%1\t%2\t%3\t%4\t%5\t%6\n")
                       .arg(antenna ? QString::fromStdString(antenna->name) : QString(), gravityWords(f.gravity), stageWords(f.stage),
                            findingTitle(f, m_context.system()), findingSentence(f, m_context.system()),
                            f.cure ? coreWords(f.cure->label, m_context.system()) : QString());
        }
    return out;
}

void LeftBoard::act(const advice::Finding& finding)
{
    if (!finding.cure)
        return goTo(finding);
    m_context.left.cure(finding);
}

void LeftBoard::goTo(const advice::Finding& finding)
{
    if (findAntenna(m_context.document.design(), finding.antenna))
        m_context.document.setCurrent(finding.antenna);
    emit pageWanted(QString::fromLatin1(advice::idOf(finding.stage)), QString::fromLatin1(finding.view));
}

QRect LeftBoard::chosenArea() const
{
    if (m_chosen < 0 || m_chosen >= int(m_places.size()))
        return {};
    const Place& place = m_places[std::size_t(m_chosen)];
    return QRectF(0.0, place.top, width(), place.height).toRect();
}

int LeftBoard::rowAt(double y) const
{
    for (std::size_t i = 0; i < m_places.size(); ++i)
        if (y >= m_places[i].top && y < m_places[i].top + m_places[i].height)
            return int(i);
    return -1;
}

void LeftBoard::choose(int row)
{
    if (row < 0 || row >= int(m_open.size()))
        return;
    m_chosen = row;
    update();
    emit rowChosen();
}

void LeftBoard::keyPressEvent(QKeyEvent* event)
{
    switch (event->key()) {
    case Qt::Key_Up: return choose(m_chosen - 1);
    case Qt::Key_Down: return choose(m_chosen + 1);
    case Qt::Key_Home: return choose(0);
    case Qt::Key_End: return choose(int(m_open.size()) - 1);
    case Qt::Key_Return:
    case Qt::Key_Enter:
        if (const advice::Finding* f = chosen(); f && (!f->cure || fresh()))
            act(advice::Finding(*f));
        return;
    default: Canvas::keyPressEvent(event);
    }
}

void LeftBoard::mousePressEvent(QMouseEvent* event) { choose(rowAt(event->position().y())); }

void LeftBoard::mouseDoubleClickEvent(QMouseEvent* event)
{
    if (const int row = rowAt(event->position().y()); row >= 0)
        goTo(advice::Finding(m_open[std::size_t(row)]));
}

void LeftBoard::resizeEvent(QResizeEvent* event)
{
    Canvas::resizeEvent(event);
    layOut(QSizeF(size()));
}

void LeftBoard::focusInEvent(QFocusEvent* event)
{
    Canvas::focusInEvent(event);
    update();
}

void LeftBoard::focusOutEvent(QFocusEvent* event)
{
    Canvas::focusOutEvent(event);
    update();
}

} // namespace vetchling::app
