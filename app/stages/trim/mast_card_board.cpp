#include "app/stages/trim/mast_card_board.h"

#include "app/view/sketch.h"
#include "app/view/words.h"

namespace vetchling::app {

MastCardBoard::MastCardBoard(ViewContext& context, TrimDesk& desk) : Canvas(context), m_desk(desk)
{
    setObjectName(QStringLiteral("mastCardBoard"));
    setAccessibleName(tr("What to do before measuring"));
    setMinimumHeight(380);
    connect(&desk, &TrimDesk::ready, this, qOverload<>(&QWidget::update));
}

QStringList MastCardBoard::steps() const
{
    QStringList out;
    if (const auto card = m_desk.card(); card && m_desk.next())
        for (const Text& step : card->steps)
            out << coreWords(step, m_context.system());
    return out;
}

void MastCardBoard::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    const QStringList all = steps();
    if (all.isEmpty()) {
        sketch.text({0.0, 20.0},
                    m_context.document.hasAntenna() ? tr("Being worked out …") : tr("No antenna yet: add one with + at the top."),
                    Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 13});
        return;
    }
    double y = 10.0;
    for (qsizetype i = 0; i < all.size(); ++i) {
        const QFont font = sketch.theme().font(15);
        sketch.painter().setFont(font);
        const QRectF needed = sketch.painter().boundingRect(QRectF(0.0, 0.0, size.width() - 52.0, 200.0), Qt::TextWordWrap, all[i]);
        sketch.painter().setPen(Qt::NoPen);
        sketch.painter().setBrush(i == 0 ? c.petalPale : c.leafPale);
        sketch.painter().drawEllipse(QPointF(15.0, y + 13.0), 13.0, 13.0);
        sketch.text({15.0, y + 13.0}, QString::number(i + 1), Qt::AlignHCenter | Qt::AlignVCenter, {c.ink, 13, true});
        sketch.painter().setFont(font);
        sketch.painter().setPen(c.ink);
        sketch.painter().drawText(QRectF(42.0, y + 2.0, size.width() - 52.0, needed.height() + 6.0), Qt::TextWordWrap, all[i]);
        y += std::max(30.0, needed.height()) + 14.0;
    }
}

} // namespace vetchling::app
