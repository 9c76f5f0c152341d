#pragma once
/// The open design: what is shown, edited, undone and saved. Owns no widget. Things are referred to by their ids.

#include "core/design/design.h"
#include "core/design/variants.h"
#include "core/files/writer.h"

#include <QObject>
#include <QString>
#include <QUndoStack>

#include <functional>
#include <future>
#include <memory>

namespace vetchling::app {

using DesignPointer = std::shared_ptr<const Design>;

class Document : public QObject {
    Q_OBJECT
public:
    explicit Document(QObject* parent = nullptr);

    /// As it is looked at: with the chosen variants in their antennas' places.
    [[nodiscard]] const Design& design() const { return *m_design; }
    /// Never null, as the next.
    [[nodiscard]] DesignPointer snapshot() const { return m_design; }
    /// As it is saved: each antenna as drawn.
    [[nodiscard]] const Design& stored() const { return *m_stored; }
    [[nodiscard]] DesignPointer storedSnapshot() const { return m_stored; }
    [[nodiscard]] QUndoStack& undoStack() { return m_undo; }

    /// Id of the antenna on show; empty if there is none.
    [[nodiscard]] const Id& current() const { return m_current; }
    [[nodiscard]] bool hasAntenna() const { return m_antenna != nullptr; }
    [[nodiscard]] const Antenna& antenna() const { return *m_antenna; }
    [[nodiscard]] const shapes::Family& family() const { return shapes::familyOf(antenna().shape); }
    void setCurrent(Id antenna);
    /// Which variant of the current antenna is looked at and changed; empty: as drawn.
    [[nodiscard]] Id variant() const;
    void setVariant(const Id& variant);
    void stepVariant(int places);
    /// Of the current antenna, with its variant's where one is looked at.
    [[nodiscard]] QString shownName() const;
    /// Keeps what is looked at as a new variant, and looks at that.
    void addVariant(const QString& name);
    void removeVariant(const Id& variant);
    void renameVariant(const Id& variant, const QString& name);
    void noteVariant(const Id& variant, const QString& note);
    /// The variant that is looked at becomes the antenna as drawn, and that one a variant.
    void makeVariantTheAntenna(const QString& nameBefore);

    /// Which of its configurations an antenna is looked at in, 0 the innermost.
    [[nodiscard]] std::size_t configuration(const Id& antenna) const;
    [[nodiscard]] std::size_t configuration() const { return configuration(m_current); }
    /// Of the current antenna; the band it is for is selected with it.
    void setConfiguration(std::size_t configuration);
    /// The antenna so many places further along the shelf; none beyond its ends.
    void stepCurrent(int places);

    /// The band that is looked at everywhere; empty for none.
    [[nodiscard]] const Id& selectedBand() const { return m_selectedBand; }
    void selectBand(const Id& band);
    void stepBand(int places);

    /// Changes the design in one undoable step. Steps with the same non-empty key that follow each other directly are
    /// one step, so that a drag is undone whole.
    void edit(const QString& text, const QString& mergeKey, const std::function<void(Design&)>& change);
    /// The same for the current antenna.
    void editAntenna(const QString& text, const QString& mergeKey, const std::function<void(Antenna&)>& change);
    /// A shape of an antenna moved as a whole: what was typed for the values that changed is forgotten.
    void setShape(const QString& text, const QString& mergeKey, const Id& antenna, const shapes::AntennaShape& shape);
    /// One of the current antenna that was found for several bands together.
    void setCompromise(const QString& text, const shapes::AntennaShape& shape, Compromise::From from);
    /// The current antenna fed from its other end (Family::flipped). False where it has none, or could not be built so.
    bool flipEnds();
    /// Sets a parameter of the current antenna and keeps what was typed for it.
    void setParameter(const std::string& key, double value, const QString& typed, bool dragging = false);
    /// The same of what a lever moves, all else staying where it is built (Family::levered): what was solved so is taken so.
    void setLever(const std::string& key, double value, bool dragging = false, std::optional<Compromise::From> together = {});
    /// Several at once. @param together where they were chosen for several bands
    void setParameters(const QString& text, const shapes::Parameters& values, std::optional<Compromise::From> together = {});
    /// Ends a drag: the next edit starts a new undo step.
    void endDrag() { m_lastKey.clear(); }
    /// The last edit was a step of a drag, and more may follow.
    [[nodiscard]] bool dragging() const { return !m_lastKey.isEmpty(); }

    /// Adds a copy under an id and a name of its own and shows it; where nothing is wished for yet, it wishes for the band it is cut for.
    /// @param plan where that band comes from if the design has none there; may be null
    void addAntenna(Antenna antenna, const BandPlan* plan = nullptr);
    void removeCurrentAntenna();
    /// Under a name that is free; an empty one changes nothing.
    void renameAntenna(const Id& antenna, const QString& name);

    /// A design file being read on a thread of its own.
    using Reading = std::shared_future<std::shared_ptr<const Result<Design>>>;
    /// Begins to read a file that will be opened soon; whoever opens it then need not read it again.
    Reading expect(const QString& path);
    /// Reads a design aside, or takes what was expected, unless the file was changed since.
    Result<Design> read(const QString& path);
    /// Opens a design; on a fault the old one stays.
    Faults open(const QString& path);
    Faults openText(const std::string& text, const QString& name);
    Faults save(const QString& path);
    /// Somebody else has written the file since it was opened or saved here.
    [[nodiscard]] bool changedOnDisk() const;
    /// What of the file could not be read; null if all was.
    [[nodiscard]] const FileDamage* damage() const { return m_stored->damage.get(); }
    /// What stands in for the damaged parts is taken for good.
    void forgetDamage();
    /// @param file as it was before it was read
    void setDesign(Design design, const QString& path, const files::FileState& file = {});
    [[nodiscard]] const QString& path() const { return m_path; }
    [[nodiscard]] bool modified() const { return !m_undo.isClean() || m_recovered; }
    void markRecovered() { m_recovered = true; }

    // For undo commands only.
    void replace(DesignPointer stored, const Id& current, const ChosenVariants& chosen);

signals:
    void leaving();        ///< the antenna or the design that is shown; comes before anything changes
    void designReplaced(); ///< another document was opened; comes before the others
    void designChanged();  ///< anything in it
    void currentChanged();
    void variantChanged(); ///< another one is looked at; designChanged comes with it
    void bandSelected();
    void configurationChanged();
    void pathChanged();

private:
    void take(DesignPointer stored, Id current, ChosenVariants chosen);
    void push(const QString& text, DesignPointer stored, const Id& current, const ChosenVariants& chosen);
    /// Changes the current antenna as it is saved, and which variant is looked at.
    void editVariants(const QString& text, const std::function<void(Antenna& stored, Id& chosen)>& change);
    void selectOwnBand();

    DesignPointer m_design, m_stored; ///< the same where no variant is chosen
    ChosenVariants m_chosen;
    QUndoStack m_undo;
    QString m_path, m_lastKey;
    files::FileState m_file; ///< when it was read or written here
    Id m_current, m_selectedBand;
    std::map<Id, std::size_t> m_configurations;
    const Antenna* m_antenna = nullptr; ///< of m_design
    struct Expected {
        QString path;
        files::FileState file;
        Reading reading;
    };
    std::optional<Expected> m_expected;
    bool m_recovered = false;
};

} // namespace vetchling::app
