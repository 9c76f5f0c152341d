#include "app/document/left_desk.h"

#include "app/document/antenna_models.h"
#include "core/files/chain_file.h"
#include "core/files/workshop_file.h"

#include <QDateTime>

#include <algorithm>

namespace vetchling::app {
namespace {

constexpr int restMilliseconds = 400; // nobody reads it while the antenna changes

std::shared_ptr<const advice::LeftData> dataOf(const QString& folder)
{
    auto out = std::make_shared<advice::LeftData>();
    if (auto workshop = files::readWorkshopData((folder + QStringLiteral("/workshop.json")).toStdString()))
        out->workshop = std::move(workshop).value(); // what cannot be read is told where it is shown
    if (auto lines = files::readLineTypes((folder + QStringLiteral("/lines.json")).toStdString()))
        out->lines = std::move(lines).value();
    return out;
}

bool sameThing(const advice::Finding& a, const advice::Finding& b)
{
    return a.antenna == b.antenna && a.code == std::string(b.code) && a.message.english() == b.message.english();
}

} // namespace

LeftDesk::LeftDesk(Document& document, const AntennaModels& models, SolveService& solver, const QString& dataFolder, QObject* parent)
    : QObject(parent), m_document(document), m_models(models), m_solver(solver), m_data(dataOf(dataFolder)),
      m_one(
          document, solver,
          [&library = solver.library(), references = m_references, data = m_data](const Question& asked, const Watch& watch, const auto&) {
              return look(library, *references, *data, asked, watch);
          },
          [this] { emit changed(); }),
      m_site(
          document, solver,
          [&library = solver.library(), references = m_references, data = m_data](const Question& asked, const Watch& watch, const auto&) {
              return look(library, *references, *data, asked, watch);
          },
          [this] { emit changed(); })
{
    m_soon.setSingleShot(true);
    m_soon.setInterval(restMilliseconds);
    connect(&m_soon, &QTimer::timeout, this, [this] { solverRests() ? want() : later(); });
    for (auto signal : {&Document::designChanged, &Document::currentChanged, &Document::designReplaced})
        connect(&document, signal, this, &LeftDesk::later);
    connect(&solver, &SolveService::detailReady, this, &LeftDesk::later);
}

void LeftDesk::later() { m_soon.start(); }

/// What the antenna on show is solved for is asked again where it is not there yet.
bool LeftDesk::solverRests() const { return !m_document.dragging() && !m_solver.busy(); }

void LeftDesk::want()
{
    m_soon.stop();
    if (!m_document.hasAntenna())
        return;
    Question asked = question();
    const CurvePointer curve = m_solver.curve();
    if (curve && !m_solver.busy() && m_solver.plane() == SolveService::Plane::Feedpoint &&
        curve->question.subject == m_solver.question().subject)
        asked.solved = {curve, m_solver.detail()};
    if (m_one.want(std::move(asked)))
        emit changed();
}

void LeftDesk::wantSite()
{
    if (m_site.want(siteQuestion()))
        emit changed();
}

Result<LeftDesk::Answer> LeftDesk::look(study::Library& library, study::References& references, const advice::LeftData& data,
                                        const Question& asked, const Watch& watch)
{
    advice::LeftData today = data;
    today.now = QDateTime::currentDateTime().toString(Qt::ISODate).toStdString();
    Answer out;
    std::vector<advice::Left> lefts;
    const double count = asked.antenna.empty() ? double(asked.design->antennas.size()) : 1.0;
    for (const Antenna& antenna : asked.design->antennas) {
        if (!asked.antenna.empty() && antenna.id != asked.antenna)
            continue;
        watch.report(double(lefts.size()) / count);
        auto left = advice::leftOf(library, references, *asked.design, antenna, today, asked.solved, watch.with({}));
        if (!left)
            return left.faults();
        out.antennas[antenna.id] = left->findings;
        lefts.push_back(std::move(left).value());
    }
    if (asked.antenna.empty())
        out.site = advice::siteFindings(*asked.design, lefts);
    return out;
}

std::vector<advice::Finding> LeftDesk::withWorkedOut(const Id& antenna, const Answer* answer) const
{
    std::vector<advice::Finding> all;
    if (const AntennaModel* model = m_models.find(antenna); model && !model->fault)
        all = model->told();
    const auto worked = answer ? answer->antennas.find(antenna) : decltype(answer->antennas.end()){};
    if (!answer || worked == answer->antennas.end())
        return all;
    const bool clear = all.empty();
    for (const advice::Finding& f : worked->second) {
        const auto known = std::find_if(all.begin(), all.end(), [&](const advice::Finding& g) { return sameThing(f, g); });
        if (known != all.end())
            known->cure = f.cure;
        else if (!f.ofPlace || (!f.open() && clear))
            all.push_back(f);
    }
    advice::sort(all);
    return all;
}

std::vector<advice::Finding> LeftDesk::findings() const
{
    if (!m_document.hasAntenna())
        return {};
    const auto answer = m_one.answer();
    std::vector<advice::Finding> all = withWorkedOut(m_document.current(), answer.get());
    if (m_heardOf == question()) {
        all.insert(all.end(), m_heard.begin(), m_heard.end());
        advice::sort(all);
    }
    return all;
}

void LeftDesk::hear(std::vector<advice::Finding> findings)
{
    if (!m_document.hasAntenna() || (m_heardOf == question() && findings.size() == m_heard.size()))
        return;
    m_heardOf = question();
    m_heard = std::move(findings);
    emit changed();
}

std::vector<advice::Finding> LeftDesk::siteWide() const
{
    const auto answer = m_site.answer();
    std::vector<advice::Finding> all = answer ? answer->site : std::vector<advice::Finding>();
    const std::size_t own = all.size();
    for (bool dangerous : {true, false})
        for (const Antenna& antenna : m_document.design().antennas) {
            std::vector<advice::Finding> its = withWorkedOut(antenna.id, answer.get());
            if (dangerous == (!its.empty() && its.front().gravity == advice::Gravity::Danger))
                all.insert(dangerous ? all.end() - long(own) : all.end(), std::make_move_iterator(its.begin()),
                           std::make_move_iterator(its.end()));
        }
    return all;
}

Standing LeftDesk::standing() const { return m_document.hasAntenna() ? m_one.standing(question()) : Standing::None; }
Standing LeftDesk::siteStanding() const { return m_document.hasAntenna() ? m_site.standing(siteQuestion()) : Standing::None; }

int LeftDesk::open() const
{
    const auto all = findings();
    return int(std::count_if(all.begin(), all.end(), [](const advice::Finding& f) { return f.open(); }));
}

int LeftDesk::dangers() const
{
    const auto all = findings();
    return int(std::count_if(all.begin(), all.end(), [](const advice::Finding& f) { return f.gravity == advice::Gravity::Danger; }));
}

void LeftDesk::cure(const advice::Finding& finding)
{
    const auto isNow = [&](const std::vector<advice::Finding>& all) {
        return std::any_of(all.begin(), all.end(), [&](const advice::Finding& f) { return sameThing(f, finding) && f.cure; });
    };
    const bool now = (standing() == Standing::Whole && isNow(findings())) || (siteStanding() == Standing::Whole && isNow(siteWide()));
    if (now && finding.cure && finding.cure->change)
        m_document.edit(QString::fromStdString(finding.cure->label.english()), {}, finding.cure->change);
}

std::vector<NamedWaiting> LeftDesk::waitings()
{
    return {{tr("What is left to do"), m_one.waiting()}, {tr("What is left, whole site"), m_site.waiting()}};
}

} // namespace vetchling::app
