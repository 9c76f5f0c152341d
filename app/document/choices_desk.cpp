#include "app/document/choices_desk.h"

namespace vetchling::app {
namespace {

template <class T> Result<ChoicesDesk::Curve> widened(Result<T> curve)
{
    if (!curve)
        return curve.faults();
    return ChoicesDesk::Curve(std::move(curve).value());
}

} // namespace

ChoicesDesk::ChoicesDesk(Document& document, SolveService& solver, QObject* parent)
    : QObject(parent), m_document(document), m_solver(solver),
      m_curve(
          document, solver,
          [&library = solver.library()](const ChoiceQuestion& asked, const Watch& watch, const auto&) {
              const double frequency = shapes::frequencyOf(asked.subject.shape, asked.subject.configuration);
              study::TradeOptions options;
              options.pair = asked.pair;
              return asked.kind == Kind::Trade ? widened(study::tradeCurve(library, asked.subject, frequency, options, watch))
                                               : widened(study::radialCurve(library, asked.subject, frequency, 0.0, watch));
          },
          [this] { emit ready(); })
{
}

void ChoicesDesk::want(Kind kind, std::size_t pair)
{
    if (!m_document.hasAntenna())
        return;
    ChoiceQuestion asked{kind, pair, m_solver.question().subject};
    if (const auto before = m_curve.question();
        before && (before->kind != kind || before->pair != pair || before->subject.shape.family != asked.subject.shape.family))
        m_curve.forget();
    m_curve.want(std::move(asked));
}

std::vector<NamedWaiting> ChoicesDesk::waitings() { return {{tr("Trade"), m_curve.waiting()}}; }

} // namespace vetchling::app
