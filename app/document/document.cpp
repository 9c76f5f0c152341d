#include "app/document/document.h"

#include <QUndoCommand>

#include <algorithm>

namespace vetchling::app {
namespace {

class EditCommand final : public QUndoCommand {
public:
    EditCommand(Document& document, const QString& text, QString key, DesignPointer before, DesignPointer after, int currentBefore,
                int currentAfter)
        : QUndoCommand(text), m_document(document), m_key(std::move(key)), m_before(std::move(before)), m_after(std::move(after)),
          m_currentBefore(currentBefore), m_currentAfter(currentAfter)
    {
    }

    int id() const override { return m_key.isEmpty() ? -1 : int(qHash(m_key) & 0x3fffffff); }

    bool mergeWith(const QUndoCommand* other) override
    {
        const auto* next = static_cast<const EditCommand*>(other);
        if (next->m_key != m_key)
            return false;
        m_after = next->m_after;
        m_currentAfter = next->m_currentAfter;
        return true;
    }

    void undo() override { m_document.replace(m_before, m_currentBefore); }
    void redo() override { m_document.replace(m_after, m_currentAfter); }

private:
    Document& m_document;
    QString m_key;
    DesignPointer m_before, m_after;
    int m_currentBefore, m_currentAfter;
};

} // namespace

Document::Document(QObject* parent) : QObject(parent), m_design(std::make_shared<const Design>()) { m_undo.setUndoLimit(500); }

void Document::setCurrent(int index)
{
    if (index == m_current || index < 0 || index >= int(m_design->antennas.size()))
        return;
    m_current = index;
    m_selectedBand = bandOf(*m_design, antenna().shape.designFrequency);
    emit currentChanged();
}

void Document::selectBand(int index)
{
    if (index == m_selectedBand || index < 0 || index >= int(m_design->operation.bands.size()))
        return;
    m_selectedBand = index;
    emit bandSelected();
}

void Document::edit(const QString& text, const QString& mergeKey, const std::function<void(Design&)>& change)
{
    auto after = std::make_shared<Design>(*m_design);
    change(*after);
    if (*after == *m_design)
        return;
    const int current = std::clamp(m_current, 0, std::max(0, int(after->antennas.size()) - 1));
    // Equal keys merge only while nothing else came between; a fresh suffix starts a new step.
    static quint64 serial = 0;
    if (mergeKey.isEmpty() || !m_lastKey.startsWith(mergeKey + QLatin1Char('#')))
        m_lastKey = mergeKey.isEmpty() ? QString() : QStringLiteral("%1#%2").arg(mergeKey).arg(++serial);
    m_undo.push(new EditCommand(*this, text, m_lastKey, m_design, std::move(after), m_current, current));
}

void Document::editAntenna(const QString& text, const QString& mergeKey, const std::function<void(Antenna&)>& change)
{
    if (!hasAntenna())
        return;
    const auto index = std::size_t(m_current);
    edit(text, mergeKey, [&](Design& design) { change(design.antennas[index]); });
}

void Document::setParameter(const std::string& key, double value, const QString& typed, bool dragging)
{
    const shapes::Family* family = hasAntenna() ? shapes::findFamily(antenna().shape.family) : nullptr;
    const shapes::ParameterSpec* spec = family ? family->spec(key) : nullptr;
    if (!spec)
        return;
    const QString label = QString::fromStdString(spec->label);
    editAntenna(tr("change %1").arg(label.toLower()), dragging ? QStringLiteral("drag %1").arg(m_current) : QString(), [&](Antenna& a) {
        a.shape.parameters[key] = value;
        if (typed.isEmpty())
            a.typed.erase(key);
        else
            a.typed[key] = typed.toStdString();
    });
}

void Document::addAntenna(const Antenna& antenna)
{
    edit(tr("add %1").arg(QString::fromStdString(antenna.name)), {}, [&](Design& design) { design.antennas.push_back(antenna); });
    setCurrent(int(m_design->antennas.size()) - 1);
}

void Document::removeCurrentAntenna()
{
    if (!hasAntenna())
        return;
    const auto index = m_current;
    edit(tr("remove %1").arg(QString::fromStdString(antenna().name)), {},
         [&](Design& design) { design.antennas.erase(design.antennas.begin() + index); });
}

Faults Document::open(const QString& path)
{
    Result<Design> design = files::readDesign(path.toStdString());
    if (!design)
        return design.faults();
    setDesign(std::move(design).value(), path);
    return {};
}

Faults Document::openText(const QString& text, const QString& name)
{
    Result<Design> design = files::parseDesign(text.toStdString());
    if (!design)
        return design.faults();
    setDesign(std::move(design).value(), name);
    return {};
}

Faults Document::save(const QString& path)
{
    if (Faults faults = files::saveDesign(*m_design, path.toStdString()); !faults.empty())
        return faults;
    m_path = path;
    m_recovered = false;
    m_undo.setClean();
    emit pathChanged();
    return {};
}

void Document::setDesign(Design design, const QString& path)
{
    m_undo.clear();
    m_path = path;
    m_recovered = false;
    m_lastKey.clear();
    m_design = std::make_shared<const Design>(std::move(design));
    m_current = 0;
    m_selectedBand = bandOf(*m_design, hasAntenna() ? antenna().shape.designFrequency : 0.0);
    emit pathChanged();
    emit designChanged();
    emit currentChanged();
}

void Document::replace(DesignPointer design, int current)
{
    m_design = std::move(design);
    const bool moved = current != m_current;
    m_current = std::clamp(current, 0, std::max(0, int(m_design->antennas.size()) - 1));
    if (m_selectedBand >= int(m_design->operation.bands.size()))
        m_selectedBand = -1;
    emit designChanged();
    if (moved)
        emit currentChanged();
}

int bandOf(const Design& design, double frequency)
{
    const auto& bands = design.operation.bands;
    for (std::size_t i = 0; i < bands.size(); ++i)
        if (frequency >= 0.98 * bands[i].band.from && frequency <= 1.02 * bands[i].band.to)
            return int(i);
    for (std::size_t i = 0; i < bands.size(); ++i)
        if (bands[i].wish != Wish::No)
            return int(i);
    return bands.empty() ? -1 : 0;
}

} // namespace vetchling::app
