#include "app/window/sheet_writer.h"

#include "app/document/build_desk.h"
#include "app/document/coil_desk.h"
#include "app/view/context.h"

#include <QEventLoop>
#include <QTimer>

#include <algorithm>

namespace vetchling::app {
namespace {

/// Everything that the pages read, without a window.
class Bench {
public:
    explicit Bench(const QString& dataFolder)
        : m_shed({}), m_models(m_document, m_shed), m_solver(m_document), m_variants(m_document, m_solver),
          m_left(m_document, m_models, m_solver, dataFolder), m_context{m_document, m_models, m_solver, m_variants, m_shed, m_left,
                                                                        m_theme,    {},       {},       {},         {},     dataFolder},
          m_build(m_document, m_models, m_shed, m_solver, dataFolder), m_coils(m_document, m_solver)
    {
        m_theme.setMode(Theme::Mode::Paper);
        m_theme.apply(*qApp);
        if (auto conductors = files::readConductors((dataFolder + QStringLiteral("/conductors.json")).toStdString()))
            m_context.conductors = std::move(conductors).value();
    }

    Faults open(const SheetRequest& request)
    {
        if (Faults faults = m_document.open(request.design); !faults.empty())
            return faults;
        if (request.antenna.isEmpty())
            return m_document.hasAntenna() ? Faults() : Faults{{"", coreText("core", "the design has no antenna")}};
        const std::string wanted = request.antenna.toStdString();
        for (const Antenna& a : m_document.design().antennas)
            if (a.name == wanted || a.id == wanted) {
                m_document.setCurrent(a.id);
                return {};
            }
        return {{"--antenna", {coreText("core", "there is no antenna '%1' in the design"), wanted}}};
    }

    Faults solve()
    {
        m_build.wantSafety();
        m_coils.want();
        m_left.want();
        QEventLoop loop;
        QTimer poll;
        QObject::connect(&poll, &QTimer::timeout, [&] {
            if (!m_build.safetyBusy() && !m_coils.busy() && !m_left.busy())
                loop.quit();
        });
        poll.start(20);
        loop.exec();
        return m_build.safetyFaults();
    }

    [[nodiscard]] SheetPages pages() const { return SheetPages(sheetFactsOf(m_context, m_build, m_coils)); }
    [[nodiscard]] const BuildDesk& build() const { return m_build; }
    [[nodiscard]] std::optional<Fault> impossible() const { return m_models.current() ? m_models.current()->fault : std::nullopt; }
    void stop() { m_solver.stop(); }

private:
    Document m_document;
    ShedDesk m_shed;
    AntennaModels m_models;
    SolveService m_solver;
    VariantsDesk m_variants;
    LeftDesk m_left;
    Theme m_theme;
    ViewContext m_context;
    BuildDesk m_build;
    CoilDesk m_coils;
};

Faults written(Bench& bench, const SheetRequest& request)
{
    if (Faults faults = bench.open(request); !faults.empty())
        return faults;
    if (!bench.build().faults().empty())
        return bench.build().faults();
    if (const auto fault = bench.impossible())
        return {*fault};
    if (!request.quick && !request.sheet.isEmpty())
        if (Faults faults = bench.solve(); !faults.empty())
            return faults;
    if (!request.sheet.isEmpty())
        if (Faults faults = bench.pages().write(request.sheet, request.paper); !faults.empty())
            return faults;
    return request.templates.isEmpty() ? Faults() : bench.pages().writeTemplates(request.templates);
}

} // namespace

Faults writeSheet(const QString& dataFolder, const SheetRequest& request)
{
    Bench bench(dataFolder);
    const Faults faults = written(bench, request);
    bench.stop();
    return faults;
}

std::optional<SheetPaper> paperOf(const QString& word)
{
    return word == QLatin1String("a4")       ? std::optional(SheetPaper::A4)
           : word == QLatin1String("letter") ? std::optional(SheetPaper::Letter)
           : word == QLatin1String("phone")  ? std::optional(SheetPaper::Phone)
                                             : std::nullopt;
}

} // namespace vetchling::app
