#include "app/document/feed_desk.h"

#include "app/document/antenna_models.h"
#include "core/shapes/end_fed_parts.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

/// What is no matter of the wires and their fields.
study::Question wiresOnly(study::Question question)
{
    question.subject.shape.feedpoint.clear();
    std::erase_if(question.subject.shape.parameters, [](const auto& value) {
        const std::string& key = value.first;
        return key.starts_with("transformer_") || key == "winding_H" || key == "leakage_H" || key == "capacitor_F";
    });
    question.requested.clear();
    question.limit = 2.0;
    return question;
}

study::FeedQuestion wiresOnly(study::FeedQuestion asked)
{
    asked.question = wiresOnly(std::move(asked.question));
    return asked;
}

} // namespace

FeedDesk::FeedDesk(Document& document, const AntennaModels& models, SolveService& solver, const std::vector<LineType>& lineTypes,
                   QObject* parent)
    : QObject(parent), m_document(document), m_models(models), m_solver(solver), m_lineTypes(lineTypes),
      m_basis(
          document, solver,
          [&library = solver.library(), references = m_references](const study::FeedQuestion& asked, const Watch& watch, const auto&) {
              return study::feedBasisOf(library, *references, asked, watch);
          },
          [this] { work(); }),
      m_shield(
          document, solver,
          [&library = solver.library()](const ShieldAsk& asked, const Watch& watch, const auto& soFar) {
              return study::shieldAnswer(library, asked.question, watch, soFar, asked.known.get());
          },
          [this] { emit shieldReady(); })
{
    for (auto signal : {&Document::designReplaced, &Document::designChanged, &Document::currentChanged, &Document::bandSelected})
        connect(&document, signal, this, &FeedDesk::work);
    connect(&solver, &SolveService::curveReady, this, &FeedDesk::work);
    connect(&solver, &SolveService::detailReady, this, [this] {
        wantBasis();
        work();
    });
    connect(&solver, &SolveService::pinChanged, this, [this] {
        if (m_document.design().operation.against.kind == Against::Kind::Pinned)
            wantBasis();
    });
}

study::FeedQuestion FeedDesk::question() const
{
    const std::shared_ptr<const Antenna> pinned = m_solver.pinnedAntenna();
    return study::feedQuestionOf(m_document.design(), m_document.antenna(), pinned.get());
}

void FeedDesk::wantBasis()
{
    if (m_document.hasAntenna() && m_basis.want(question()))
        work();
}

bool FeedDesk::fresh() const
{
    const auto answered = m_basis.answered();
    return m_report && !m_basis.busy() && answered && wiresOnly(*answered) == wiresOnly(question());
}

Against FeedDesk::against() const
{
    const auto basis = m_basis.answer();
    return basis ? basis->against : Against();
}

std::vector<ChainPart> FeedDesk::whole() const
{
    const AntennaModel* model = m_models.current();
    std::vector<ChainPart> all = model && model->built ? ownParts(model->built->transformer) : std::vector<ChainPart>();
    const auto& parts = chainParts(m_document.antenna());
    all.insert(all.end(), parts.begin(), parts.end());
    return all;
}

std::size_t FeedDesk::ownCount(const std::vector<ChainPart>& whole) const { return whole.size() - chainParts(m_document.antenna()).size(); }

/// Everything that follows from what is solved.
void FeedDesk::work()
{
    const auto basis = m_basis.answer();
    Worked now;
    if (basis)
        now = {basis, whole(), m_document.design().operation.power, servedRule(m_document.design().operation)};
    if (!(now == m_workedOf)) {
        m_workedOf = now;
        m_report.reset();
        if (basis)
            m_report =
                std::make_shared<const study::FeedReport>(study::feedReport(*basis, now.parts, ownCount(now.parts), now.power, now.rule));
        m_choices = {};
        m_worked = {};
        m_leakage.reset();
    }
    m_choices[std::size_t(Choice::Chain)].clear(); // the chains that are not in use may be others
    m_worked[std::size_t(Choice::Chain)] = false;
    m_reflection = workedReflection();
    emit changed();
}

void FeedDesk::wantChoices(Choice choice)
{
    const auto basis = m_basis.answer();
    if (!m_report || !basis || m_worked[std::size_t(choice)])
        return;
    m_worked[std::size_t(choice)] = true;
    m_choices[std::size_t(choice)] = workedChoices(choice, *basis);
    if (choice == Choice::Capacitor)
        m_leakage = study::leakageEffect(*basis, m_report->parts, m_report->own, servedRule(m_document.design().operation));
}

std::vector<study::ChoiceRow> FeedDesk::workedChoices(Choice choice, const study::FeedBasis& basis) const
{
    const ServedRule rule = servedRule(m_document.design().operation);
    const auto& parts = m_report->parts;
    const std::size_t own = m_report->own;
    const auto has = [&](const char* key) { return m_document.family().spec(m_document.antenna().shape, key) != nullptr; };
    switch (choice) {
    case Choice::Transformer: return study::transformersCompared(basis, parts, own, rule);
    case Choice::Tuner: return study::tunersCompared(basis, parts, own, rule);
    case Choice::Line: return study::linesCompared(basis, parts, own, rule, m_lineTypes, m_comparedLength, has("line_ohm"));
    case Choice::Chain: return study::chainsCompared(basis, m_document.antenna(), rule);
    case Choice::Capacitor:
        if (study::transformerPlace(parts, own) >= own || has("capacitor_F"))
            return study::capacitorsCompared(basis, parts, own, rule);
        break;
    }
    return {};
}

std::optional<double> FeedDesk::matchedLoss(const Id& id) const
{
    const auto seen = report();
    const study::FeedRow* row = seen ? seen->row(m_document.selectedBand()) : nullptr;
    if (!row)
        return std::nullopt;
    const auto line = std::find_if(seen->parts.begin(), seen->parts.end(), [&](const ChainPart& p) { return p.id == id; });
    if (line == seen->parts.end() || line->kind != part::line)
        return std::nullopt;
    const Complex own{partValue(*line, "impedance_ohm"), partValue(*line, "impedance_imag_ohm")};
    return chainAt({*line}, own, row->band.frequency).totalLoss();
}

double FeedDesk::lookedAt() const
{
    const WantedBand* band = findBand(m_document.design(), m_document.selectedBand());
    if (!band)
        return 0.0;
    return m_frequency >= band->band.from && m_frequency <= band->band.to ? m_frequency : band->band.centre();
}

std::shared_ptr<const study::Reflection> FeedDesk::workedReflection() const
{
    const CurvePointer curve = m_solver.curve();
    const WantedBand* band = m_document.hasAntenna() ? findBand(m_document.design(), m_document.selectedBand()) : nullptr;
    if (!curve || !band || curve->question.subject.shape.family != m_document.antenna().shape.family)
        return nullptr;
    study::ReflectionQuestion asked;
    asked.parts = whole();
    asked.own = ownCount(asked.parts);
    asked.band = band->band;
    asked.frequency = lookedAt();
    asked.wanted = band->id;
    asked.basis = m_basis.answer();
    asked.rule = servedRule(m_document.design().operation);
    asked.power = m_document.design().operation.power;
    if (const DetailPointer detail = m_solver.detail(); detail && !detail->levers.empty())
        asked.lever = detail->levers.front();
    const auto seen = study::reflectionOf(*curve, asked);
    return seen ? std::make_shared<const study::Reflection>(*seen) : nullptr;
}

void FeedDesk::lookAt(double frequency)
{
    if (frequency == m_frequency)
        return;
    m_frequency = frequency;
    m_reflection = workedReflection();
    emit changed();
}

void FeedDesk::setComparedLength(double length)
{
    if (length == m_comparedLength)
        return;
    m_comparedLength = length;
    m_choices[std::size_t(Choice::Line)].clear();
    m_worked[std::size_t(Choice::Line)] = false;
    emit changed();
}

void FeedDesk::take(Choice choice, const study::ChoiceRow& row)
{
    wantChoices(choice);
    const auto& rows = choices(choice);
    const auto now = std::find_if(rows.begin(), rows.end(), [&](const study::ChoiceRow& r) { return r.sameChoice(row); });
    if (now == rows.end() || now->now)
        return;
    if (choice == Choice::Chain) {
        useChain(Id(now->chain));
        return;
    }
    const QString text = choice == Choice::Transformer ? tr("change the transformer")
                         : choice == Choice::Capacitor ? tr("change the capacitor")
                         : choice == Choice::Tuner     ? tr("move the tuner")
                                                       : tr("change the line");
    takeChain(text, std::vector<ChainPart>(now->parts));
}

void FeedDesk::takeCure(const study::ReflectionCure& cure)
{
    const auto seen = reflection(); // held: taking it works out another
    if (!seen)
        return;
    const auto now = std::find_if(seen->cures.begin(), seen->cures.end(), [&](const study::ReflectionCure& c) { return c.sameWay(cure); });
    if (now == seen->cures.end())
        return;
    if (now->kind == study::ReflectionCure::Kind::Length)
        m_document.setLever(now->parameter, m_document.family().value(m_document.antenna().shape, now->parameter) + now->change);
    else
        takeChain(tr("match the antenna"), now->parts);
}

void FeedDesk::takeChain(const QString& text, const std::vector<ChainPart>& parts)
{
    const std::size_t own = ownCount(whole());
    editChain(text, {}, [&](Antenna& a) { vetchling::takeChain(a, parts, own); });
}

study::ShieldQuestion FeedDesk::shieldQuestion() const
{
    study::ShieldQuestion out;
    out.feed = question();
    out.site = m_document.design().site;
    out.earthed = m_earthed;
    out.power = m_document.design().operation.power;
    if (m_report)
        for (const study::FeedRow& row : m_report->rows)
            out.configurations[row.band.band] = row.band.configuration;
    out.choke = newPart(part::choke);
    for (const ChainPart& p : chainParts(m_document.antenna()))
        if (p.kind == part::choke) {
            out.chokes.push_back({partValue(p, "at_m"), p});
            out.choke = p;
        }
    out.choke.id.clear(); // it stands for any: a new id would be a new question
    out.choke.values.erase("at_m");
    if (const auto& shape = m_document.antenna().shape;
        m_document.family().spec(shape, "counterpoise_m") && !shapes::returnsByShield(shape))
        out.counterpoises = {0.5, 1.0, 2.0, 4.0, 8.0};
    return out;
}

void FeedDesk::wantShield()
{
    if (!m_document.hasAntenna() || m_document.dragging() || !fresh())
        return;
    ShieldAsk asked{shieldQuestion(), nullptr};
    if (m_shield.asks(asked))
        return;
    const auto last = m_shield.answer();
    const auto answered = m_shield.answered();
    if (last && last->complete && answered && study::sameButForChokes(answered->question, asked.question))
        asked.known = last;
    else
        m_shield.forget();
    m_shield.want(std::move(asked));
}

bool FeedDesk::shieldFresh() const { return m_document.hasAntenna() && fresh() && m_shield.asks({shieldQuestion(), nullptr}); }

void FeedDesk::setEarthed(bool earthed)
{
    m_earthed = earthed;
    emit changed();
}

// ---- edits

void FeedDesk::editChain(const QString& text, const QString& mergeKey, const std::function<void(Antenna&)>& change)
{
    if (m_document.hasAntenna())
        m_document.editAntenna(text, mergeKey, change);
}

Id FeedDesk::addPart(const std::string& kind, const Id& before)
{
    ChainPart part = newPart(kind);
    if (kind == part::line) {
        const auto type =
            std::find_if(m_lineTypes.begin(), m_lineTypes.end(), [](const LineType& t) { return !t.balanced && t.impedance == 50.0; });
        if (type != m_lineTypes.end())
            takeType(part, *type);
    }
    editChain(tr("add a part"), {}, [&](Antenna& a) {
        auto& parts = ownChain(a).parts;
        const auto place = std::find_if(parts.begin(), parts.end(), [&](const ChainPart& p) { return p.id == before; });
        parts.insert(place, part);
        settleTuners(parts);
    });
    return part.id;
}

void FeedDesk::removePart(const Id& part)
{
    editChain(tr("remove a part"), {}, [&](Antenna& a) {
        if (vetchling::findPart(a, part))
            std::erase_if(ownChain(a).parts, [&](const ChainPart& p) { return p.id == part; });
    });
}

void FeedDesk::movePart(const Id& part, int places)
{
    editChain(tr("move a part"), {}, [&](Antenna& a) { vetchling::movePart(a, part, places); });
}

void FeedDesk::setValue(const Id& id, const std::string& key, double value, bool dragging)
{
    editChain(
        tr("change a part"),
        dragging ? QStringLiteral("part %1 %2").arg(QString::fromStdString(id), QString::fromStdString(key)) : QString(), [&](Antenna& a) {
            ChainPart* p = findPart(a, id);
            if (!p)
                return;
            if (p->kind == part::tuner && key == "place") {
                moveTuner(a, id, part::TunerPlace(std::lround(value)));
                return;
            }
            p->values[key] = value;
            const bool ofType = key == "impedance_ohm" || key == "velocity_factor" || key == "k1_dB_per_100m" || key == "k2_dB_per_100m";
            if (p->kind == part::line && ofType)
                p->type.clear();
        });
}

void FeedDesk::setBasis(const Id& part, Basis basis)
{
    editChain(tr("say how a figure came about"), {}, [&](Antenna& a) {
        if (ChainPart* p = findPart(a, part))
            p->basis = basis;
    });
}

void FeedDesk::setType(const Id& part, const std::string& type)
{
    const auto known = std::find_if(m_lineTypes.begin(), m_lineTypes.end(), [&](const LineType& t) { return t.id == type; });
    editChain(tr("change the line"), {}, [&](Antenna& a) {
        if (ChainPart* p = findPart(a, part)) {
            p->type.clear();
            if (known != m_lineTypes.end())
                takeType(*p, *known);
        }
    });
}

void FeedDesk::setLossTable(const Id& part, const std::vector<std::pair<double, double>>& table)
{
    editChain(tr("change a part"), {}, [&](Antenna& a) {
        if (ChainPart* p = findPart(a, part))
            p->lossTable = table;
    });
}

Faults FeedDesk::size(const Id& part)
{
    const CurvePointer curve = m_solver.curve();
    const WantedBand* band = findBand(m_document.design(), m_document.selectedBand());
    if (!curve || !band || !curve->covers(band->band.centre()))
        return {{"", coreText("core", "the antenna is not solved on this band yet")}};
    const std::vector<ChainPart> parts = whole();
    const auto place = std::find_if(parts.begin(), parts.end(), [&](const ChainPart& p) { return p.id == part; });
    if (place == parts.end())
        return {};
    const double f = band->band.centre();
    const Complex load = chainAt({parts.begin(), place}, curve->atPort(f), f).impedance();
    const Result<ChainPart> sized = study::sizedPart(*place, load, f, m_document.design().operation.reference);
    if (!sized)
        return sized.faults();
    editChain(tr("size a part"), {}, [&](Antenna& a) {
        if (ChainPart* p = findPart(a, part))
            *p = *sized;
    });
    return {};
}

void FeedDesk::addChain()
{
    editChain(tr("add a chain"), {}, [&](Antenna& a) { vetchling::addChain(a, tr("chain").toStdString()); });
}

void FeedDesk::useChain(const Id& chain)
{
    editChain(tr("use another chain"), {}, [&](Antenna& a) { vetchling::useChain(a, chain); });
}

void FeedDesk::removeChain(const Id& chain)
{
    editChain(tr("remove a chain"), {}, [&](Antenna& a) { vetchling::removeChain(a, chain); });
}

void FeedDesk::renameChain(const Id& chain, const QString& name)
{
    if (name.trimmed().isEmpty())
        return;
    editChain(tr("rename a chain"), {}, [&](Antenna& a) {
        for (FeedChain& c : a.feed.chains)
            if (c.id == chain)
                c.name = name.trimmed().toStdString();
    });
}

void FeedDesk::placeChoke(double at)
{
    editChain(tr("place the choke"), {}, [&](Antenna& a) {
        auto& parts = ownChain(a).parts;
        auto choke = std::find_if(parts.begin(), parts.end(), [](const ChainPart& p) { return p.kind == part::choke; });
        if (choke == parts.end())
            choke = parts.insert(parts.begin(), newPart(part::choke));
        choke->values["at_m"] = std::round(100.0 * at) / 100.0;
    });
}

std::vector<NamedWaiting> FeedDesk::waitings()
{
    return {{tr("Feed line"), m_basis.waiting()}, {tr("The coax's outside"), m_shield.waiting()}};
}

} // namespace vetchling::app
