#include "app/document/variants_desk.h"

#include "app/document/document.h"

namespace vetchling::app {
namespace {

constexpr std::size_t mostWithSpread = 12;

} // namespace

VariantsDesk::VariantsDesk(Document& document, SolveService& solver, QObject* parent)
    : QObject(parent), m_document(document), m_solver(solver), m_comparison(solver, [this] { emit comparisonReady(); }),
      m_spread(solver, [this] {
          m_fresh.reset();
          emit spreadReady();
      })
{
    connect(&document, &Document::designChanged, this, [this] { m_fresh.reset(); });
    connect(&document, &Document::currentChanged, this, [this] { m_fresh.reset(); });
    connect(this, &VariantsDesk::comparisonReady, this, [this] {
        if (!m_comparison.busy())
            m_idle.start(m_idleFor);
    });
    const auto forget = [this] {
        m_comparison.forget();
        m_compared.reset();
        m_spread.forget();
        m_spreadAsked.reset();
    };
    connect(&document, &Document::designReplaced, this, forget);
    connect(&document, &Document::currentChanged, this, forget);
    m_idle.setSingleShot(true);
    connect(&solver, &SolveService::detailReady, this, [this] { m_idle.start(m_idleFor); });
    connect(&m_idle, &QTimer::timeout, this, [this] {
        if (!m_document.hasAntenna())
            return;
        if (m_solver.busy() || m_solver.busyInBackground())
            m_idle.start(m_idleFor); // asked again: nothing else tells that the background is at rest
        else if (!m_document.antenna().variants.empty() && m_compared != comparisonQuestion())
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
    if (!m_document.hasAntenna() || m_document.dragging())
        return;
    const study::ComparisonQuestion asked = comparisonQuestion();
    if (m_compared == asked)
        return;
    m_compared = asked;
    m_comparison.ask([asked, &library = m_solver.library()](const Watch& watch, const auto& publish) {
        std::vector<study::Compared> rows;
        for (std::size_t i = 0; i < asked.antennas.size(); ++i) {
            rows.push_back(study::comparedOf(library, asked, i, watch));
            if (watch.stopped())
                return;
            publish(rows);
        }
        for (std::size_t i = 0; i < rows.size() && rows.size() <= mostWithSpread; ++i) {
            study::addSpread(library, asked, i, rows[i], watch);
            if (watch.stopped())
                return;
            publish(rows);
        }
    });
}

study::SpreadQuestion VariantsDesk::spreadQuestion() const
{
    study::SpreadQuestion asked = study::spreadQuestionOf(m_document.design(), m_document.antenna());
    asked.question.limit = 2.0; // what is said of the limit is no matter of the spread
    return asked;
}

void VariantsDesk::wantSpread()
{
    if (!m_document.hasAntenna() || m_document.dragging())
        return;
    const study::SpreadQuestion asked = spreadQuestion();
    if (m_spreadAsked == asked)
        return;
    m_spreadAsked = asked;
    m_spread.ask([asked, &library = m_solver.library()](const Watch& watch, const auto& publish) {
        publish(study::spreadOf(library, asked, watch));
    });
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
        const auto spread = m_spread.answer();
        m_fresh = spread && m_document.hasAntenna() && spread->asked == spreadQuestion() ? spread : nullptr;
    }
    return *m_fresh;
}

} // namespace vetchling::app
