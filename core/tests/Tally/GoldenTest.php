<?php

declare(strict_types=1);

namespace NineTally\Tests\Tally;

use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Report\FindingFiles;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\TallySettings;
use NineTally\Core\Wording\Sentences;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * Whole outputs: a plan and two deliveries in, every file of findings out, compared as text.
 *
 * What is expected was read line by line against the rules. A change of it is reviewed like code.
 */
final class GoldenTest extends TestCase
{
    use TemporaryFiles;

    private const CASES = __DIR__.'/../golden';

    #[DataProvider('cases')]
    public function test_the_files_of_findings_are_as_they_were_agreed(string $case): void
    {
        $folder = self::CASES."/{$case}";
        $plan = Plan::fromJson((string) file_get_contents("{$folder}/plan.json"));
        [$old, $new] = [
            DelimitedReader::detecting("{$folder}/old.csv", 'old.csv'),
            DelimitedReader::detecting("{$folder}/new.csv", 'new.csv'),
        ];
        $files = FindingFiles::in($this->folder('out'), $plan, $old->columns, $new->columns, listsForgiven: true);
        $findings = (new TallyRun(
            $plan,
            new Sides($old, $new),
            $this->folder('work'),
            settings: new TallySettings(listsForgiven: true),
        ))->findings();
        $sentences = new Sentences;
        $remarks = '';
        foreach ($findings as $finding) {
            $files->add($finding);
            $remark = $sentences->remark($finding);
            $remarks .= $remark === null ? '' : "{$finding->key?->asCsv()}: {$remark}\n";
        }
        $names = $files->finish($findings->getReturn());
        $written = '';
        foreach ($names as $name) {
            // The versions of the engine are not what is held here.
            $written .=
                "== {$name}\n".
                preg_replace('/,\n    "engine": .*?\n    \}/s', '', (string) file_get_contents($this->folder('out')."/{$name}"));
        }

        self::assertSame(
            (string) file_get_contents("{$folder}/expected.txt"),
            "{$written}== remarks\n{$remarks}== warnings\n".
                implode("\n", array_map($sentences->warning(...), $findings->getReturn()->warnings())).
                "\n",
        );
    }

    /** @return iterable<string, array{string}> */
    public static function cases(): iterable
    {
        foreach (glob(self::CASES.'/*', GLOB_ONLYDIR) ?: [] as $folder) {
            yield basename($folder) => [basename($folder)];
        }
    }
}
