#include "app/document/bands_desk.h"

#include <QPointer>

namespace vetchling::app {
namespace {

/// What operating and settings depend on: not which configuration is looked at, nor a state before.
study::Question withoutView(study::Question question)
{
    question.subject.configuration = 0;
    question.before.reset();
    return question;
}

/// What is set or solved at the antenna is judged there.
study::Question atTheAntenna(study::Question question)
{
    question = withoutView(std::move(question));
    question.towardsRadio.clear();
    return question;
}

} // namespace

BandsDesk::BandsDesk(Document& document, SolveService& solver, QObject* parent)
    : QObject(parent), m_document(document), m_solver(solver),
      m_operating(
          document, solver,
          [&library = solver.library(), references = m_references](const OperatingQuestion& asked, const Watch& watch, const auto& soFar) {
              Result<study::Operating> match = study::operatingOf(library, asked.antenna, watch);
              if (!match)
                  return match;
              soFar(*match);
              return study::withUses(library, *references, std::move(match).value(), asked.aim, watch);
          },
          [this] {
              judge();
              emit operatingReady();
          }),
      m_settings(
          document, solver,
          [&library = solver.library()](const study::Question& asked, const Watch& watch, const auto&) {
              return study::settingsOf(library, asked, watch);
          },
          [this] { emit settingsReady(); }),
      m_compensation(
          document, solver,
          [&library = solver.library()](const CompensationQuestion& asked, const Watch& watch, const auto&) {
              return asked.lowerBand.empty() ? study::compensate(library, asked.antenna, watch)
                                             : study::addLowerBand(library, asked.antenna, asked.lowerBand, watch);
          },
          [this] { emit compensationReady(); })
{
    connect(&document, &Document::currentChanged, this, &BandsDesk::leave);
    for (auto signal : {&Document::designReplaced, &Document::designChanged, &Document::currentChanged})
        connect(&document, signal, this, &BandsDesk::judgeUnlessMoving);
    connect(&solver, &SolveService::curveReady, this, &BandsDesk::judgeUnlessMoving);
    connect(&solver, &SolveService::detailReady, this, &BandsDesk::judge);
}

BandsDesk::~BandsDesk() { cancelMap(); }

/// While something is dragged and solved for it stays as it was: the detail comes when the mouse rests.
void BandsDesk::judgeUnlessMoving()
{
    if (!m_document.dragging() || !m_solver.busy())
        judge();
}

void BandsDesk::judge()
{
    m_services.clear();
    m_tally = {};
    const CurvePointer curve = m_solver.curve();
    if (!m_document.hasAntenna() || !curve)
        return;
    const auto all = m_operating.answer();
    const bool together = all && all->curves.size() > 1 && operatingIsFresh();
    const std::vector<CurvePointer> curves = together ? all->curves : std::vector{curve};
    const auto services = study::servicesOf(curves, together ? all->choices : study::bestByBand(curves),
                                            study::termsOf(m_document.design().operation, m_document.antenna()));
    const std::vector<WantedBand>& bands = curves.front()->question.bands;
    for (std::size_t i = 0; i < bands.size(); ++i)
        m_services[bands[i].id] = services[i];
    m_tally = tallyOf(services, bands);
}

const BandService* BandsDesk::service(const Id& band) const
{
    const auto known = m_services.find(band);
    return known == m_services.end() ? nullptr : &known->second;
}

/// Another antenna is on show.
void BandsDesk::leave()
{
    m_compensation.forget();
    cancelMap();
    m_map.reset();
    m_mapBefore.reset();
    m_mapAsked.reset();
    m_finder.reset();
}

BandsDesk::OperatingQuestion BandsDesk::operatingQuestion() const
{
    return {withoutView(m_solver.question()), study::aimOf(m_document.design().operation)};
}

bool BandsDesk::operatingIsFresh() const
{
    const auto answered = m_operating.answered();
    return answered && answered->antenna == withoutView(m_solver.question());
}

void BandsDesk::wantOperating()
{
    if (m_document.hasAntenna())
        m_operating.want(operatingQuestion());
}

void BandsDesk::wantSettings()
{
    if (m_document.hasAntenna())
        m_settings.want(atTheAntenna(m_solver.question()));
}

/// Each time it is asked for anew: the answer before may have been taken.
void BandsDesk::wantCompensation(const Id& lowerBand)
{
    if (!m_document.hasAntenna())
        return;
    m_compensation.forget();
    m_compensation.want({atTheAntenna(m_solver.question()), lowerBand});
}

void BandsDesk::wantMap(const std::string& vary, double from, double to, const std::optional<shapes::AntennaShape>& tried)
{
    if (!m_document.hasAntenna())
        return;
    Antenna antenna = m_document.antenna();
    if (tried)
        antenna.shape = *tried;
    if (!tried)
        m_mapBefore.reset();
    else if (!m_mapBefore && m_map && m_map->progress() >= 1.0)
        m_mapBefore = m_map;
    MapPut put{m_document.snapshot(), m_document.current(), vary, from, to};
    if (!tried && m_map && m_mapFaults.empty() && m_mapPut == put)
        return; // the same, of the same design
    m_mapPut = tried ? MapPut() : std::move(put);
    const Result<study::MapQuestion> question = study::mapQuestionOf(m_document.design(), antenna, vary, from, to);
    if (!question) {
        cancelMap();
        m_map.reset();
        m_mapAsked.reset();
        m_mapFaults = question.faults();
        return;
    }
    m_mapFaults.clear();
    if (m_mapAsked == *question && m_map)
        return;
    cancelMap();
    m_mapAsked = *question;
    beginMap();
}

std::vector<std::string> BandsDesk::heights() const
{
    return m_document.hasAntenna() ? study::heightsOf(m_document.design(), m_document.antenna()) : std::vector<std::string>();
}

std::optional<study::Varied> BandsDesk::varied(const std::string& vary) const
{
    return m_document.hasAntenna() ? study::variedOf(m_document.design(), m_document.antenna(), vary) : std::nullopt;
}

std::pair<double, double> BandsDesk::usualRange(const std::string& vary) const
{
    return m_document.hasAntenna() ? study::usualRange(m_document.design(), m_document.antenna(), vary) : std::pair(0.0, 0.0);
}

void BandsDesk::takeFromMap(const std::string& vary, double value, bool dragging)
{
    if (!study::isHeight(vary))
        return m_document.setLever(vary, value, dragging, Compromise::From::Map);
    if (m_document.hasAntenna())
        m_document.setShape(tr("hang it at another height"), dragging ? QStringLiteral("height") : QString(), m_document.current(),
                            study::variedTo(m_document.design(), m_document.antenna(), vary, value));
}

void BandsDesk::beginMap()
{
    m_mapPosted = std::make_shared<std::atomic<bool>>(false);
    const auto changed = [guard = QPointer<BandsDesk>(this), posted = m_mapPosted] {
        if (!posted->exchange(true)) // one call carries all columns that came since
            QMetaObject::invokeMethod(
                qApp,
                [guard, posted] {
                    posted->store(false);
                    if (guard && guard->m_mapPosted == posted)
                        guard->takeMap();
                },
                Qt::QueuedConnection);
    };
    m_run = std::make_unique<study::MapRun>(
        m_solver.library().sharedTables(), [this](work::Queue::Work work) { return m_solver.inBackground(std::move(work)); }, *m_mapAsked,
        changed, study::Reach::Near);
    m_map = m_run->map();
}

void BandsDesk::wantFinder(const std::string& lengthKey, const FreeLengthOptions& options)
{
    std::vector<Band> wanted;
    for (const WantedBand& w : m_document.design().operation.bands)
        if (w.wish != Wish::No)
            wanted.push_back(w.band);
    m_finder = std::make_shared<const study::FinderFacts>(study::finderFacts(wanted, options, m_map));
    if (!m_finder->faults.empty() || m_document.dragging())
        return;
    const auto before = m_map;
    wantMap(lengthKey, options.from, options.to);
    if (m_map != before)
        m_finder = std::make_shared<const study::FinderFacts>(study::finderFacts(wanted, options, m_map));
}

void BandsDesk::takeMap()
{
    if (!m_run)
        return;
    m_map = m_run->map();
    if (m_finder)
        m_finder = std::make_shared<const study::FinderFacts>(study::finderFacts(m_finder->bands, m_finder->options, m_map));
    emit mapChanged();
}

void BandsDesk::cancelMap()
{
    if (m_run)
        m_run->cancel();
    m_run.reset();
    m_mapPosted.reset();
}

Waiting BandsDesk::mapWaiting()
{
    const auto part = [this] { return m_map && m_map->progress() < 1.0; };
    return {[this] { return mapping(); }, [this, part] { return m_mapAsked && !m_run && part(); },
            [this] { return m_map ? m_map->progress() : 0.0; },
            [this] {
                cancelMap();
                emit mapChanged();
            },
            [this] {
                if (m_mapAsked && !m_run)
                    beginMap();
                emit mapChanged();
            }};
}

std::vector<NamedWaiting> BandsDesk::waitings()
{
    return {{tr("Use of the bands"), m_operating.waiting()},
            {tr("Settings"), m_settings.waiting()},
            {tr("Coil near the feed"), m_compensation.waiting()},
            {tr("Map of lengths"), mapWaiting()}};
}

} // namespace vetchling::app
