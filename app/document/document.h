#pragma once
/// The open design: what is shown, edited, undone and saved. Owns no widget.

#include "core/files/data.h"
#include "core/files/design.h"

#include <QObject>
#include <QString>
#include <QUndoStack>

#include <functional>
#include <memory>

namespace vetchling::app {

using DesignPointer = std::shared_ptr<const Design>;

class Document : public QObject {
    Q_OBJECT
public:
    explicit Document(QObject* parent = nullptr);

    [[nodiscard]] const Design& design() const { return *m_design; }
    [[nodiscard]] DesignPointer snapshot() const { return m_design; }
    [[nodiscard]] QUndoStack& undoStack() { return m_undo; }

    [[nodiscard]] int current() const { return m_current; }
    [[nodiscard]] bool hasAntenna() const { return m_current >= 0 && m_current < int(m_design->antennas.size()); }
    [[nodiscard]] const Antenna& antenna() const { return m_design->antennas[std::size_t(m_current)]; }
    void setCurrent(int index);

    /// The band that is looked at everywhere; an index into operation.bands, -1 for none.
    [[nodiscard]] int selectedBand() const { return m_selectedBand; }
    void selectBand(int index);

    /// Changes the design in one undoable step. Steps with the same non-empty key that follow each other directly are
    /// one step, so that a drag is undone whole.
    void edit(const QString& text, const QString& mergeKey, const std::function<void(Design&)>& change);
    /// The same for the current antenna.
    void editAntenna(const QString& text, const QString& mergeKey, const std::function<void(Antenna&)>& change);
    /// Sets a parameter of the current antenna and keeps what was typed for it.
    void setParameter(const std::string& key, double value, const QString& typed, bool dragging = false);
    /// Ends a drag: the next edit starts a new undo step.
    void endDrag() { m_lastKey.clear(); }

    void addAntenna(const Antenna& antenna);
    void removeCurrentAntenna();

    /// Opens a design; on a fault the old one stays.
    Faults open(const QString& path);
    Faults openText(const QString& text, const QString& name);
    Faults save(const QString& path);
    void setDesign(Design design, const QString& path);
    [[nodiscard]] const QString& path() const { return m_path; }
    [[nodiscard]] bool modified() const { return !m_undo.isClean() || m_recovered; }
    void markRecovered() { m_recovered = true; }

    // For undo commands only.
    void replace(DesignPointer design, int current);

signals:
    void designChanged(); ///< anything in it
    void currentChanged();
    void bandSelected();
    void pathChanged();

private:
    DesignPointer m_design;
    QUndoStack m_undo;
    QString m_path, m_lastKey;
    int m_current = 0, m_selectedBand = -1;
    bool m_recovered = false;
};

/// The band to start with: the one that holds the antenna's design frequency, else the first wanted one.
int bandOf(const Design& design, double frequency);

} // namespace vetchling::app
