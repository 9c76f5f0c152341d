#include "app/document/build_desk.h"

#include "app/document/antenna_models.h"
#include "app/document/shed_desk.h"
#include "core/files/limits_file.h"
#include "core/files/workshop_file.h"
#include "core/line/parts.h"

#include <algorithm>

namespace vetchling::app {

BuildDesk::BuildDesk(Document& document, const AntennaModels& models, ShedDesk& shed, SolveService& solver, const QString& dataFolder,
                     QObject* parent)
    : QObject(parent), m_document(document), m_models(models), m_shed(shed), m_solver(solver),
      m_safety(
          document, solver,
          [&library = solver.library()](const study::Question& asked, const Watch& watch, const auto& soFar) {
              return study::safetyBasisOf(library, asked, watch, soFar);
          },
          [this] { emit safetyReady(); })
{
    const auto data = files::readWorkshopData((dataFolder + QStringLiteral("/workshop.json")).toStdString());
    const auto limits = files::readLimits((dataFolder + QStringLiteral("/limits.json")).toStdString());
    if (data)
        m_data = *data;
    else
        m_faults = data.faults();
    if (limits)
        m_limits = *limits;
    else
        m_faults.insert(m_faults.end(), limits.faults().begin(), limits.faults().end());
    for (auto signal : {&Document::designChanged, &Document::currentChanged, &Document::configurationChanged})
        connect(&document, signal, this, &BuildDesk::workOut);
    connect(&shed, &ShedDesk::changed, this, &BuildDesk::workOut);
    workOut();
}

void BuildDesk::workOut()
{
    m_facts.reset();
    m_cores.reset();
    if (!m_document.hasAntenna())
        return;
    const auto [low, high] = wishedRange();
    m_cores = coreFactsOf(m_document.design().operation, choke(), transformer(), m_data.ferrites, low, high);
}

std::shared_ptr<const shapes::BuiltAntenna> BuildDesk::built() const
{
    const AntennaModel* model = m_models.current();
    return model && !model->fault ? model->built : nullptr;
}

const BuildFacts* BuildDesk::facts() const
{
    const auto built = this->built();
    if (!built || !m_document.hasAntenna())
        return nullptr;
    if (!m_facts)
        m_facts = buildFactsOf(m_document.design(), m_document.antenna(), *built, m_data, stockPrices(m_shed.shed()));
    return &*m_facts;
}

PieceState BuildDesk::piece(const std::string& key) const
{
    const auto& all = m_document.antenna().workshop.pieces;
    const auto found = all.find(key);
    return found == all.end() ? PieceState() : found->second;
}

void BuildDesk::edit(const QString& text, const QString& mergeKey, const std::function<void(Workshop&)>& change)
{
    if (m_document.hasAntenna())
        m_document.editAntenna(text, mergeKey, [&](Antenna& a) { change(a.workshop); });
}

void BuildDesk::setPiece(const std::string& key, const PieceState& state)
{
    edit(state.done != piece(key).done ? tr("tick a piece") : tr("measure a piece"), {}, [&](Workshop& w) {
        if (state == PieceState())
            w.pieces.erase(key);
        else
            w.pieces[key] = state;
    });
}

void BuildDesk::setAllowance(double Allowances::*member, double value, const QString& mergeKey)
{
    m_document.editAntenna(tr("change an allowance"), mergeKey, [&](Antenna& a) { a.allowances.*member = value; });
}

void BuildDesk::setPart(const std::string& key, const PartChange& change)
{
    edit(tr("change a part"), {}, [&](Workshop& w) {
        if (change == PartChange())
            w.parts.erase(key);
        else
            w.parts[key] = change;
    });
}

std::string BuildDesk::addOwnPart(const QString& name)
{
    std::string key;
    edit(tr("add a part"), {}, [&](Workshop& w) {
        for (int i = 1; key.empty() || w.parts.contains(key); ++i)
            key = "own-" + std::to_string(i);
        PartChange part;
        part.name = name.toStdString();
        w.parts[key] = part;
    });
    return key;
}

void BuildDesk::removePart(const std::string& key)
{
    edit(tr("remove a part"), {}, [&](Workshop& w) {
        PartChange& part = w.parts[key];
        if (!part.name.empty()) {
            w.parts.erase(key);
            return;
        }
        part.leftOut = !part.leftOut;
        if (part == PartChange())
            w.parts.erase(key);
    });
}

CoreChoke BuildDesk::choke() const
{
    const CoreWinding& w = m_document.antenna().workshop.choke;
    const FerriteClass* ferrite = m_data.ferrite(w.mix);
    const FerriteRing* ring = m_data.ring(w.ring);
    return {ferrite ? *ferrite : FerriteClass(), ring ? *ring : FerriteRing(), w.rings, w.turns};
}

CoreTransformer BuildDesk::transformer() const
{
    const CoreWinding& w = m_document.antenna().workshop.transformer;
    const FerriteClass* ferrite = m_data.ferrite(w.mix);
    const FerriteRing* ring = m_data.ring(w.ring);
    return {ferrite ? *ferrite : FerriteClass(), ring ? *ring : FerriteRing(), w.rings, w.turns};
}

bool BuildDesk::hasChoke() const
{
    const auto parts = m_document.hasAntenna() ? wholeChain(m_document.antenna()) : std::vector<ChainPart>();
    return std::any_of(parts.begin(), parts.end(), [](const ChainPart& p) { return p.kind == part::choke; });
}

bool BuildDesk::hasTransformer() const
{
    const auto parts = m_document.hasAntenna() ? wholeChain(m_document.antenna()) : std::vector<ChainPart>();
    return std::any_of(parts.begin(), parts.end(),
                       [](const ChainPart& p) { return p.kind == part::transformer && partValue(p, "ratio") != 1.0; });
}

std::pair<double, double> BuildDesk::wishedRange() const
{
    const double own = m_document.hasAntenna() ? m_document.antenna().shape.designFrequency : 7.1e6;
    std::pair<double, double> range{0.0, 0.0};
    for (const WantedBand& b : m_document.design().operation.bands)
        if (b.wish != Wish::No)
            range = {range.first > 0.0 ? std::min(range.first, b.band.from) : b.band.from, std::max(range.second, b.band.to)};
    return range.first > 0.0 ? range : std::pair(0.9 * own, 1.1 * own);
}

void BuildDesk::giveToFeed(const char* kind, const std::map<std::string, double>& values, const QString& text)
{
    m_document.editAntenna(text, {}, [&](Antenna& a) {
        FeedChain& chain = ownChain(a);
        auto found = std::find_if(chain.parts.begin(), chain.parts.end(), [&](const ChainPart& p) { return p.kind == kind; });
        if (found == chain.parts.end())
            found = chain.parts.insert(chain.parts.begin(), newPart(kind));
        for (const auto& [key, value] : values)
            found->values[key] = value;
        found->basis = Basis::Computed;
    });
}

void BuildDesk::giveChokeToFeed()
{
    if (!m_document.hasAntenna())
        return;
    const CoreChoke choke = this->choke();
    const auto [low, high] = wishedRange();
    const ChokeModel model = modelOf(choke, low, high);
    giveToFeed(part::choke,
               {{"choking_ohm", model.resistance},
                {"choking_H", model.inductance},
                {"choking_F", model.capacitance},
                {"rating_W", allowedHeat(choke.ring, choke.rings)}},
               tr("take the choke as wound"));
}

void BuildDesk::giveTransformerToFeed()
{
    if (!m_document.hasAntenna())
        return;
    const CoreTransformer t = transformer();
    const double low = wishedRange().first;
    const Complex admittance = 1.0 / t.magnetising(low);
    giveToFeed(part::transformer,
               {{"core_ohm", 1.0 / admittance.real()},
                {"magnetising_H", -1.0 / (2.0 * pi * low * admittance.imag())},
                {"rating_W", allowedHeat(t.ring, t.rings)}},
               tr("take the transformer as wound"));
}

void BuildDesk::copyRecipe(const study::Recipe& recipe)
{
    if (m_copying)
        m_copying->cancel();
    const shapes::WireChoice wire = m_document.hasAntenna() ? m_document.antenna().shape.wire : recipe.shape.wire;
    m_copying = send<study::RecipeCopy>(
        m_solver, this,
        {[recipe, wire, ground = m_document.design().site.soil.ground(), &library = m_solver.library()](const Watch& watch, const auto&) {
             return study::copyOf(recipe, wire, ground, library.tables(), watch);
         },
         [this, number = ++m_copyNumber](const Result<study::RecipeCopy>& copy, bool) {
             if (number == m_copyNumber)
                 takeCopy(copy);
         }});
}

void BuildDesk::takeCopy(const Result<study::RecipeCopy>& copy)
{
    if (!copy) {
        emit recipeReady(tr("Not taken: %1").arg(QString::fromStdString(copy.faults().front().text())));
        return;
    }
    QStringList lengths;
    for (const auto& l : copy->lengths)
        lengths << tr("%1 was %2, is %3 here")
                       .arg(QString::fromStdString(l.name),
                            QString::fromStdString(units::formatLength(l.built, m_document.design().operation.system)),
                            QString::fromStdString(units::formatLength(l.copied, m_document.design().operation.system)));
    m_document.addAntenna(copy->antenna);
    emit recipeReady(tr("Added: %1.").arg(lengths.join(QStringLiteral(", "))));
}

study::Question BuildDesk::safetyQuestion() const
{
    study::Question asked = study::questionOf(m_document.design(), m_document.antenna());
    asked.before.reset();
    return asked;
}

void BuildDesk::wantSafety()
{
    if (m_document.hasAntenna())
        m_safety.want(safetyQuestion());
}

Standing BuildDesk::safetyStanding() const { return m_document.hasAntenna() ? m_safety.standing(safetyQuestion()) : Standing::None; }

std::shared_ptr<const study::SafetyBasis> BuildDesk::safety() const { return m_safety.answer(); }

const LimitSet* BuildDesk::limit() const
{
    if (!m_document.hasAntenna())
        return nullptr;
    const std::string& id = m_document.antenna().workshop.limit;
    const auto found = std::find_if(m_limits.begin(), m_limits.end(), [&](const LimitSet& s) { return s.id == id; });
    return found != m_limits.end() ? &*found : m_limits.empty() ? nullptr : &m_limits.front();
}

std::vector<study::KeepRow> BuildDesk::keepRows() const
{
    const auto basis = safety();
    const LimitSet* set = limit();
    if (!basis || !set)
        return {};
    const Workshop& w = m_document.antenna().workshop;
    const Mode* mode = m_data.mode(w.mode);
    return study::keepRows(*basis, *set, m_document.design().operation.power, (mode ? mode->duty : 1.0) * w.sending);
}

std::vector<NamedWaiting> BuildDesk::waitings() { return {{tr("Distances"), m_safety.waiting()}}; }

} // namespace vetchling::app
