<?php

declare(strict_types=1);

namespace NineTally\Tests\Tally;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Report\FindingFiles;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\PlainLines;
use NineTally\Core\Tally\SliceOfFindings;
use NineTally\Core\Tally\TallyRun;
use NineTally\Tests\Properties\GeneratedTally;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** Findings that are written as they stand: the same lines and counts as where each is made whole first. */
final class PlainFindingsTest extends TestCase
{
    use Tallied;

    private const ROUNDS = 60;

    public function test_the_lines_and_counts_of_plain_findings_are_those_of_whole_ones(): void
    {
        $random = new Randomizer(new Mt19937(20_261_202));
        $plainly = ['changed' => 0, 'missing' => 0, 'extra' => 0];
        $whole = 0;
        for ($round = 0; $round < self::ROUNDS; $round++) {
            $tally = GeneratedTally::draw($random);
            $document = ['totals' => [], ...$tally->plan];
            unset($document['totals'], $document['sides']['source']['preparation'], $document['sides']['target']['preparation']);
            $plan = Plan::fromJson(CanonicalJson::of($document));
            $run = $this->matched($plan, $tally);
            foreach (SliceOfFindings::all(2) as $slice) {
                $left = $texts = [];
                foreach ([false, true] as $isPlain) {
                    $folder = $this->folder("{$slice->task()}-{$round}-".(int) $isPlain);
                    $columns = $this->sides($tally)->map(static fn($reader) => $reader->columns);
                    $files = FindingFiles::part($folder, $plan, $columns->source, $columns->target, false);
                    $left[] = serialize(
                        $run->slice(
                            $slice,
                            static function (RowFinding $finding) use ($files, $isPlain, &$whole): void {
                                $whole += $isPlain ? 1 : 0;
                                $files->add($finding);
                            },
                            static fn(int $findings) => null,
                            $isPlain ? $this->counted($files, $plainly) : null,
                        ),
                    );
                    $files->finishPart();
                    $texts[] = array_map(file_get_contents(...), glob("{$folder}/*.csv") ?: []);
                }
                self::assertSame($texts[0], $texts[1], "round {$round}, {$slice->task()}");
                self::assertSame($left[0], $left[1], "round {$round}, {$slice->task()}");
            }
        }
        self::assertGreaterThan(20, min($plainly), 'Many are plain.');
        self::assertGreaterThan(20, $whole, 'Not all of them are.');
    }

    private function matched(Plan $plan, GeneratedTally $tally): TallyRun
    {
        $run = new TallyRun($plan, $this->sides($tally), $this->folder('work-'.bin2hex(random_bytes(4))));
        foreach ($run->findings() as $finding) {
            unset($finding);
        }

        return $run;
    }

    /** @return Sides<\NineTally\Core\Intake\Delimited\DelimitedReader> */
    private function sides(GeneratedTally $tally): Sides
    {
        return new Sides(
            $this->reader(GeneratedTally::csv($tally->source), 'old.csv'),
            $this->reader(GeneratedTally::csv($tally->target), 'new.csv'),
        );
    }

    /** @param array{changed: int, missing: int, extra: int} $plainly */
    private function counted(FindingFiles $files, array &$plainly): PlainLines
    {
        return new class ($files, $plainly) implements PlainLines {
            /** @param array{changed: int, missing: int, extra: int} $plainly */
            public function __construct(private FindingFiles $files, private array &$plainly) {}

            public function changed(array $key, array $cells): void
            {
                $this->plainly['changed']++;
                $this->files->changed($key, $cells);
            }

            public function alone(RowClass $class, int $part, int $line, string $row): void
            {
                $this->plainly[$class === RowClass::Missing ? 'missing' : 'extra']++;
                $this->files->alone($class, $part, $line, $row);
            }
        };
    }
}
