#pragma once
/// What lies in the user's shed: a plain file beside the settings, the same for all designs, written whenever it changes.

#include "core/workshop/shed.h"

#include <QObject>
#include <QString>

#include <functional>

namespace vetchling::app {

class ShedDesk : public QObject {
    Q_OBJECT
public:
    /// Reads the file, if there is one.
    explicit ShedDesk(const QString& path, QObject* parent = nullptr);

    [[nodiscard]] const Shed& shed() const { return m_shed; }
    [[nodiscard]] const QString& path() const { return m_path; }
    /// Why the file was not read or written; empty if all is well. A file that was not understood is left as it is until `edit`.
    [[nodiscard]] const QString& complaint() const { return m_complaint; }
    /// Changes and writes it.
    void edit(const std::function<void(Shed&)>& change);
    /// Another list in its place: an example, a friend's. Empty, or what is wrong with it.
    QString take(const QString& path);

signals:
    void changed();

private:
    QString m_path, m_complaint;
    Shed m_shed;
};

} // namespace vetchling::app
