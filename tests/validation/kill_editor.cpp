#include "tests/validation/kill_editor.h"

#include "app/document/autosave.h"

#include <QCoreApplication>
#include <QDir>

#include <chrono>
#include <cstdio>
#include <random>

namespace vetchling::testing {
namespace {

using app::Autosave;
using app::Document;

long long now()
{
    return std::chrono::duration_cast<std::chrono::milliseconds>(std::chrono::steady_clock::now().time_since_epoch()).count();
}

class Editor {
public:
    Editor(const QString& folder, unsigned seed)
        : m_design(folder + QStringLiteral("/design.vetchling")), m_autosave(m_document, folder + QStringLiteral("/autosave")),
          m_random(seed)
    {
        m_timer.setSingleShot(true);
        QObject::connect(&m_timer, &QTimer::timeout, [this] { edit(); });
    }

    bool takeUp()
    {
        if (const auto left = m_autosave.leftBehind()) {
            if (!m_document.openText(left->design, left->originalPath).empty() || m_document.damage())
                return false;
            m_document.markRecovered();
            m_autosave.adopt(*left);
        } else if (!m_document.open(m_design).empty() || m_document.damage()) {
            return false;
        }
        m_number = std::max(0, editOf(m_document.design().site.notes));
        next();
        return true;
    }

private:
    void next() { m_timer.start(int(m_random() % 30)); }

    void edit()
    {
        ++m_number;
        m_document.edit(QStringLiteral("edit"), {}, [this](Design& d) { d.site.notes = "edit " + std::to_string(m_number); });
        std::printf("%d %lld\n", m_number, now());
        std::fflush(stdout);
        if (m_random() % 60 == 0 && m_document.save(m_design).empty())
            m_autosave.discard();
        next();
    }

    QString m_design;
    Document m_document;
    Autosave m_autosave;
    std::mt19937 m_random;
    QTimer m_timer;
    int m_number = 0;
};

} // namespace

int editOf(const std::string& notes)
{
    int number = -1;
    return std::sscanf(notes.c_str(), "edit %d", &number) == 1 ? number : -1;
}

int editUntilKilled(const std::string& folder, unsigned seed)
{
    int count = 0;
    QCoreApplication app(count, nullptr);
    Editor editor(QString::fromStdString(folder), seed);
    return editor.takeUp() ? QCoreApplication::exec() : 1;
}

} // namespace vetchling::testing
