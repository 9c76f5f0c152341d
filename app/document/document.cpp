#include "app/document/document.h"

#include "app/document/aside.h"
#include "core/bands/wanted.h"
#include "core/files/design_file.h"

#include <QDateTime>
#include <QUndoCommand>

#include <algorithm>
#include <chrono>

namespace vetchling::app {
namespace {

class EditCommand final : public QUndoCommand {
public:
    struct State {
        DesignPointer stored;
        Id current;
        ChosenVariants chosen;
    };

    EditCommand(Document& document, const QString& text, QString key, State before, State after)
        : QUndoCommand(text), m_document(document), m_key(std::move(key)), m_before(std::move(before)), m_after(std::move(after))
    {
    }

    int id() const override { return m_key.isEmpty() ? -1 : int(qHash(m_key) & 0x3fffffff); }

    bool mergeWith(const QUndoCommand* other) override
    {
        const auto* next = static_cast<const EditCommand*>(other);
        if (next->m_key != m_key)
            return false;
        m_after = next->m_after;
        return true;
    }

    void undo() override { m_document.replace(m_before.stored, m_before.current, m_before.chosen); }
    void redo() override { m_document.replace(m_after.stored, m_after.current, m_after.chosen); }

private:
    Document& m_document;
    QString m_key;
    State m_before, m_after;
};

/// The antenna to show after a change: the same one, else its neighbour.
Id successor(const Design& before, const Id& current, const Design& after)
{
    if (findAntenna(after, current) || after.antennas.empty())
        return after.antennas.empty() ? Id() : current;
    const int place = std::clamp(indexOfAntenna(before, current), 0, int(after.antennas.size()) - 1);
    return after.antennas[std::size_t(place)].id;
}

} // namespace

Document::Document(QObject* parent) : QObject(parent), m_design(std::make_shared<const Design>()), m_stored(m_design)
{
    m_undo.setUndoLimit(500);
}

/// By value: what is passed may stand in the design that goes.
void Document::take(DesignPointer stored, Id current, ChosenVariants chosen)
{
    m_stored = std::move(stored);
    m_chosen = std::move(chosen);
    std::erase_if(m_chosen, [&](const auto& choice) {
        const Antenna* antenna = findAntenna(*m_stored, choice.first);
        return !antenna || !findVariant(*antenna, choice.second);
    });
    m_design = m_chosen.empty() ? m_stored : std::make_shared<const Design>(shown(*m_stored, m_chosen));
    m_antenna = findAntenna(*m_design, current);
    m_current = m_antenna ? std::move(current) : Id();
    if (!findBand(*m_design, m_selectedBand))
        m_selectedBand = bandFor(*m_design, m_antenna ? m_antenna->shape.designFrequency : 0.0);
}

/// By value: what is passed may stand in the design, which is about to change.
void Document::setCurrent(Id antenna)
{
    if (antenna == m_current || !findAntenna(*m_design, antenna))
        return;
    emit leaving();
    if (!findAntenna(*m_design, antenna))
        return;
    take(m_stored, std::move(antenna), m_chosen);
    selectOwnBand();
    emit currentChanged();
}

/// An antenna is judged on the band it is cut for.
void Document::selectOwnBand()
{
    if (m_antenna)
        m_selectedBand = bandFor(*m_design, shapes::frequencyOf(m_antenna->shape, configuration()));
}

std::size_t Document::configuration(const Id& antenna) const
{
    const auto chosen = m_configurations.find(antenna);
    const Antenna* found = findAntenna(*m_design, antenna);
    if (chosen == m_configurations.end() || !found)
        return 0;
    const std::size_t count = shapes::familyOf(found->shape).configurations(found->shape).size();
    return std::min(chosen->second, count - 1); // there may be fewer than there were
}

void Document::setConfiguration(std::size_t chosen)
{
    if (!m_antenna || chosen == configuration())
        return;
    m_configurations[m_current] = chosen;
    selectOwnBand();
    emit configurationChanged();
}

void Document::stepCurrent(int places)
{
    const int place = indexOfAntenna(*m_design, m_current) + places;
    if (place >= 0 && place < int(m_design->antennas.size()))
        setCurrent(m_design->antennas[std::size_t(place)].id);
}

void Document::selectBand(const Id& band)
{
    if (band == m_selectedBand || !findBand(*m_design, band))
        return;
    m_selectedBand = band;
    emit bandSelected();
}

void Document::stepBand(int places)
{
    const int place = indexOfBand(*m_design, m_selectedBand) + places;
    if (place >= 0 && place < int(m_design->operation.bands.size()))
        selectBand(m_design->operation.bands[std::size_t(place)].id);
}

void Document::edit(const QString& text, const QString& mergeKey, const std::function<void(Design&)>& change)
{
    auto after = std::make_shared<Design>(*m_design);
    change(*after);
    if (*after == *m_design)
        return;
    nameNewThings(*after);
    settleFeeds(*after);
    const Id current = successor(*m_design, m_current, *after);
    // Equal keys merge only while nothing else came between; a fresh suffix starts a new step.
    static quint64 serial = 0;
    if (mergeKey.isEmpty() || !m_lastKey.startsWith(mergeKey + QLatin1Char('#')))
        m_lastKey = mergeKey.isEmpty() ? QString() : QStringLiteral("%1#%2").arg(mergeKey).arg(++serial);
    if (m_chosen.empty())
        push(text, std::move(after), current, m_chosen);
    else
        push(text, std::make_shared<const Design>(vetchling::stored(std::move(*after), *m_stored, m_chosen)), current, m_chosen);
}

void Document::push(const QString& text, DesignPointer stored, const Id& current, const ChosenVariants& chosen)
{
    m_undo.push(new EditCommand(*this, text, m_lastKey, {m_stored, m_current, m_chosen}, {std::move(stored), current, chosen}));
}

Id Document::variant() const
{
    const auto chosen = m_chosen.find(m_current);
    return chosen == m_chosen.end() ? Id() : chosen->second;
}

void Document::setVariant(const Id& variant)
{
    if (!hasAntenna() || variant == this->variant() || (!variant.empty() && !findVariant(antenna(), variant)))
        return;
    ChosenVariants chosen = m_chosen;
    chosen.erase(m_current);
    if (!variant.empty())
        chosen[m_current] = variant;
    emit leaving();
    m_lastKey.clear();
    const double frequency = m_antenna->shape.designFrequency;
    take(m_stored, m_current, chosen);
    if (m_antenna->shape.designFrequency != frequency)
        selectOwnBand();
    emit designChanged();
    emit variantChanged();
}

void Document::stepVariant(int places)
{
    if (!hasAntenna())
        return;
    const auto& all = antenna().variants; // the antenna as drawn comes before the first
    const auto here = std::find_if(all.begin(), all.end(), [&](const Variant& v) { return v.id == variant(); });
    const int count = int(all.size()) + 1, place = here == all.end() ? 0 : int(here - all.begin()) + 1;
    const int next = ((place + places) % count + count) % count;
    setVariant(next == 0 ? Id() : all[std::size_t(next - 1)].id);
}

QString Document::shownName() const
{
    if (!hasAntenna())
        return {};
    const QString name = QString::fromStdString(antenna().name);
    const Variant* v = findVariant(antenna(), variant());
    return v ? tr("%1, %2").arg(name, QString::fromStdString(v->name)) : name;
}

void Document::editVariants(const QString& text, const std::function<void(Antenna& stored, Id& chosen)>& change)
{
    if (!hasAntenna())
        return;
    emit leaving();
    m_lastKey.clear();
    auto after = std::make_shared<Design>(*m_stored);
    ChosenVariants chosen = m_chosen;
    Id here = variant();
    change(*findAntenna(*after, m_current), here);
    chosen.erase(m_current);
    if (!here.empty())
        chosen[m_current] = here;
    if (*after == *m_stored && chosen == m_chosen)
        return;
    push(text, std::move(after), m_current, chosen);
}

void Document::addVariant(const QString& name)
{
    editVariants(tr("add a variant"), [&](Antenna& a, Id& chosen) { chosen = vetchling::addVariant(a, chosen, name.toStdString()); });
}

void Document::removeVariant(const Id& variant)
{
    editVariants(tr("remove a variant"), [&](Antenna& a, Id& chosen) {
        std::erase_if(a.variants, [&](const Variant& v) { return v.id == variant; });
        if (chosen == variant)
            chosen.clear();
    });
}

void Document::renameVariant(const Id& variant, const QString& name)
{
    const std::string wanted = name.trimmed().toStdString();
    if (wanted.empty())
        return;
    editVariants(tr("rename a variant"), [&](Antenna& a, Id&) {
        std::vector<std::string> taken;
        for (const Variant& v : a.variants)
            if (v.id != variant)
                taken.push_back(v.name);
        if (Variant* v = findVariant(a, variant))
            v->name = freeName(wanted, taken);
    });
}

void Document::noteVariant(const Id& variant, const QString& note)
{
    editVariants(tr("note on a variant"), [&](Antenna& a, Id&) {
        if (Variant* v = findVariant(a, variant))
            v->note = note.toStdString();
    });
}

void Document::makeVariantTheAntenna(const QString& nameBefore)
{
    editVariants(tr("make a variant the antenna"), [&](Antenna& a, Id& chosen) {
        if (takeVariant(a, chosen, nameBefore.toStdString()))
            chosen.clear();
    });
}

void Document::editAntenna(const QString& text, const QString& mergeKey, const std::function<void(Antenna&)>& change)
{
    if (!hasAntenna())
        return;
    const QString key = mergeKey.isEmpty() ? QString() : mergeKey + QLatin1Char(' ') + QString::fromStdString(m_current);
    edit(text, key, [&](Design& design) { change(*findAntenna(design, m_current)); });
}

void Document::setParameter(const std::string& key, double value, const QString& typed, bool dragging)
{
    const shapes::ParameterSpec* spec = hasAntenna() ? family().spec(antenna().shape, key) : nullptr;
    if (!spec)
        return;
    const QString label = QString::fromStdString(spec->label);
    editAntenna(tr("change %1").arg(label.toLower()), dragging ? QStringLiteral("step %1").arg(QString::fromStdString(key)) : QString(),
                [&](Antenna& a) {
                    const shapes::AntennaShape before = a.shape;
                    vetchling::setParameter(a, key, value, typed.toStdString(),
                                            QDateTime::currentDateTime().toString(Qt::ISODate).toStdString());
                    settleTyped(a, before, key, design());
                });
}

void Document::setLever(const std::string& key, double value, bool dragging, std::optional<Compromise::From> together)
{
    const shapes::ParameterSpec* spec = hasAntenna() ? family().spec(antenna().shape, key) : nullptr;
    if (!spec)
        return;
    editAntenna(tr("change %1").arg(QString::fromStdString(spec->label).toLower()),
                dragging ? QStringLiteral("step %1").arg(QString::fromStdString(key)) : QString(), [&](Antenna& a) {
                    const shapes::AntennaShape moved = shapes::familyOf(a.shape).levered(a.shape, key, value);
                    vetchling::setParameter(a, key, value, {}, QDateTime::currentDateTime().toString(Qt::ISODate).toStdString());
                    for (const auto& [other, there] : moved.parameters)
                        if (const auto now = a.shape.parameters.find(other); now == a.shape.parameters.end() || now->second != there) {
                            a.shape.parameters[other] = there;
                            a.typed.erase(other);
                        }
                    if (together)
                        agree(a, *together);
                });
}

bool Document::flipEnds()
{
    const auto next = hasAntenna() ? family().flipped(antenna().shape) : std::nullopt;
    if (!next || !shapes::buildOver(*next, groundUnder(design(), antenna())))
        return false;
    setShape(tr("flip ends"), {}, current(), *next);
    return true;
}

void Document::setShape(const QString& text, const QString& mergeKey, const Id& antenna, const shapes::AntennaShape& shape)
{
    edit(text, mergeKey, [&](Design& design) {
        if (Antenna* a = findAntenna(design, antenna))
            takeShape(*a, shape);
    });
}

void Document::setParameters(const QString& text, const shapes::Parameters& values, std::optional<Compromise::From> together)
{
    editAntenna(text, {}, [&](Antenna& a) {
        for (const auto& [key, value] : values) {
            a.shape.parameters[key] = value;
            a.typed.erase(key);
        }
        if (together)
            agree(a, *together);
    });
}

void Document::setCompromise(const QString& text, const shapes::AntennaShape& shape, Compromise::From from)
{
    editAntenna(text, {}, [&](Antenna& a) {
        takeShape(a, shape);
        agree(a, from);
    });
}

void Document::addAntenna(Antenna antenna, const BandPlan* plan)
{
    emit leaving();
    antenna.id = newId();
    antenna.name = freeName(antenna.name, antennaNames(design()));
    edit(tr("add %1").arg(QString::fromStdString(antenna.name)), {}, [&](Design& design) {
        const auto& bands = design.operation.bands;
        if (std::none_of(bands.begin(), bands.end(), [](const WantedBand& w) { return w.wish != Wish::No; }))
            wishFor(design.operation.bands, antenna.shape.designFrequency, Wish::Must, plan);
        design.antennas.push_back(antenna);
    });
    setCurrent(antenna.id);
}

void Document::renameAntenna(const Id& antenna, const QString& name)
{
    const std::string wanted = name.trimmed().toStdString();
    if (wanted.empty())
        return;
    edit(tr("rename an antenna"), {}, [&](Design& design) {
        if (Antenna* a = findAntenna(design, antenna))
            a->name = freeName(wanted, antennaNames(design, antenna));
    });
}

void Document::removeCurrentAntenna()
{
    if (!hasAntenna())
        return;
    edit(tr("remove %1").arg(QString::fromStdString(antenna().name)), {},
         [&](Design& design) { std::erase_if(design.antennas, [&](const Antenna& a) { return a.id == m_current; }); });
}

Document::Reading Document::expect(const QString& path)
{
    const std::string name = path.toStdString();
    m_expected = Expected{path, files::stateOf(name), std::async(std::launch::async, [name] {
                                                          return std::make_shared<const Result<Design>>(files::readDesign(name));
                                                      }).share()};
    return m_expected->reading;
}

Result<Design> Document::read(const QString& path)
{
    const std::string name = path.toStdString();
    const std::optional<Expected> expected = std::exchange(m_expected, std::nullopt);
    if (expected && expected->path == path && expected->file == files::stateOf(name)) {
        if (expected->reading.wait_for(std::chrono::seconds(0)) != std::future_status::ready)
            aside([&] { expected->reading.wait(); });
        return *expected->reading.get();
    }
    return aside([name] { return files::readDesign(name); });
}

Faults Document::open(const QString& path)
{
    const files::FileState file = files::stateOf(path.toStdString());
    Result<Design> design = read(path);
    if (!design)
        return design.faults();
    setDesign(std::move(design).value(), path, file);
    return {};
}

Faults Document::openText(const std::string& text, const QString& name)
{
    Result<Design> design = aside([&text] { return files::parseDesign(text); });
    if (!design)
        return design.faults();
    setDesign(std::move(design).value(), name, files::stateOf(name.toStdString()));
    return {};
}

bool Document::changedOnDisk() const
{
    const files::FileState now = files::stateOf(m_path.toStdString());
    return m_file.there && now.there && now != m_file;
}

void Document::forgetDamage()
{
    edit(tr("take what stands in for damaged parts"), {}, [](Design& design) { design.damage.reset(); });
}

Faults Document::save(const QString& path)
{
    const DesignPointer saved = m_stored;
    if (Faults faults = aside([saved, name = path.toStdString()] { return files::saveDesign(*saved, name); }); !faults.empty())
        return faults;
    m_path = path;
    m_file = files::stateOf(path.toStdString());
    if (m_stored == saved) { // an answer may have changed it meanwhile
        m_recovered = false;
        m_undo.setClean();
    }
    emit pathChanged();
    return {};
}

void Document::setDesign(Design design, const QString& path, const files::FileState& file)
{
    emit leaving();
    m_undo.clear();
    m_path = path;
    m_file = file;
    m_recovered = false;
    m_lastKey.clear();
    m_selectedBand.clear();
    nameNewThings(design);
    const Id first = design.antennas.empty() ? Id() : design.antennas.front().id;
    take(std::make_shared<const Design>(std::move(design)), first, {});
    emit designReplaced();
    emit pathChanged();
    emit designChanged();
    emit currentChanged();
}

void Document::replace(DesignPointer stored, const Id& current, const ChosenVariants& chosen)
{
    const bool moved = current != m_current;
    const Id variantBefore = variant();
    const double frequency = m_antenna ? m_antenna->shape.designFrequency : 0.0;
    take(std::move(stored), current, chosen);
    if (m_antenna && (moved || m_antenna->shape.designFrequency != frequency))
        selectOwnBand();
    emit designChanged();
    if (moved)
        emit currentChanged();
    else if (variant() != variantBefore)
        emit variantChanged();
}

} // namespace vetchling::app
