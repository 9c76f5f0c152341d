#include "app/document/variants_desk.h"

namespace vetchling::app {
VariantsDesk::VariantsDesk(Document& document, SolveService& solver, QObject* parent)
    : QObject(parent), m_document(document), m_solver(solver),
      m_comparison(
          document, solver,
          [&library = solver.library()](const study::ComparisonQuestion& asked, const Watch& watch, const auto& soFar) {
              return study::allCompared(library, asked, watch, soFar);
          },
          [this] { emit comparisonReady(); }),
      m_spread(
          document, solver,
          [&library = solver.library()](const study::SpreadQuestion& asked, const Watch& watch, const auto&) {
              return study::spreadOf(library, asked, watch);
          },
          [this] {
              m_fresh.reset();
              emit spreadReady();
          })
{
    for (auto signal : {&Document::designChanged, &Document::currentChanged})
        connect(&document, signal, this, [this] { m_fresh.reset(); });
    connect(this, &VariantsDesk::comparisonReady, this, [this] {
        if (!m_comparison.busy())
            m_idle.start(m_idleFor);
    });
    m_idle.setSingleShot(true);
    connect(&solver, &SolveService::detailReady, this, [this] { m_idle.start(m_idleFor); });
    connect(&m_idle, &QTimer::timeout, this, [this] {
        if (!m_document.hasAntenna())
            return;
        if (m_solver.busy() || m_solver.busyInBackground())
            m_idle.start(m_idleFor); // asked again: nothing else tells that the background is at rest
        else if (!m_document.antenna().variants.empty() && !m_comparison.asks(comparisonQuestion()))
            wantComparison();
        else if (m_always)
            wantSpread();
    });
}

void VariantsDesk::setAlways(bool always)
{
    m_always = always;
    if (always)
        m_idle.start(0);
    emit spreadReady(); // those that show it look again
}

study::ComparisonQuestion VariantsDesk::comparisonQuestion() const
{
    study::ComparisonQuestion asked =
        study::comparisonOf(m_document.stored(), *findAntenna(m_document.stored(), m_document.current()), tr("as drawn").toStdString());
    if (const auto pinned = m_solver.pinnedAntenna(); pinned && m_solver.pinned()) {
        asked.antennas.push_back(*pinned);
        asked.antennas.back().id = "pinned";
        asked.variants.push_back({});
        asked.names.push_back(tr("pinned: %1").arg(m_solver.pinnedName()).toStdString());
    }
    return asked;
}

void VariantsDesk::wantComparison()
{
    if (m_document.hasAntenna())
        m_comparison.want(comparisonQuestion());
}

study::SpreadQuestion VariantsDesk::spreadQuestion() const
{
    study::SpreadQuestion asked = study::spreadQuestionOf(m_document.design(), m_document.antenna());
    asked.question.limit = 2.0; // what is said of the limit is no matter of the spread
    return asked;
}

void VariantsDesk::wantSpread()
{
    if (m_document.hasAntenna())
        m_spread.want(spreadQuestion());
}

std::vector<VariantsDesk::Other> VariantsDesk::others() const
{
    std::vector<Other> all;
    const auto rows = m_comparison.answer();
    if (!rows || !m_document.hasAntenna())
        return all;
    for (std::size_t i = 0; i < rows->size(); ++i) {
        const study::Compared& row = (*rows)[i];
        const bool here = row.antenna == m_document.current() && row.variant == m_document.variant();
        if (row.antenna == m_document.current() && !here && !row.curves.empty())
            all.push_back({i, row.curves, QString::fromStdString(row.name)});
    }
    return all;
}

std::shared_ptr<const study::Spread> VariantsDesk::freshSpread() const
{
    if (!m_fresh) { // asked by every repaint: compared once a change
        m_fresh = m_document.hasAntenna() && m_spread.answers(spreadQuestion()) ? m_spread.answer() : nullptr;
    }
    return *m_fresh;
}

std::vector<NamedWaiting> VariantsDesk::waitings()
{
    return {{tr("Variants side by side"), m_comparison.waiting()}, {tr("How far off"), m_spread.waiting()}};
}

} // namespace vetchling::app
