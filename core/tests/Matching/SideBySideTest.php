<?php

declare(strict_types=1);

namespace NineTally\Tests\Matching;

use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\TallySettings;
use NineTally\Tests\Tally\Tallied;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** Registers that come in the same order, or nearly: read at once they must give what they give one after the other. */
final class SideBySideTest extends TestCase
{
    use Tallied;

    private const HEADER = "basin,berth,note\n";

    public function test_gives_the_same_findings_as_reading_one_side_after_the_other(): void
    {
        $random = new Randomizer(new Mt19937(20_261_125));
        for ($round = 0; $round < 25; $round++) {
            $source = array_map(
                static fn(int $row): string => "KB,{$row},".($row % 9 === 0 ? "\"Ladder\nloose\"" : 'Quay wall weeps')."\n",
                range(1, 600),
            );
            $target = $source;
            foreach ([&$source, &$target] as &$side) {
                for ($change = $random->getInt(0, 6); $change > 0; $change--) {
                    $at = $random->getInt(0, count($side) - 1);
                    array_splice($side, $at, $random->getInt(0, 1), [
                        ["KB,{$at},Another note\n"],
                        [],
                        ["LM,{$at},New here\n"],
                        [$side[$random->getInt(0, count($side) - 1)]],
                        [",,No key\n"],
                        ["KB,half a record\n"],
                        ["\n"],
                    ][$random->getInt(0, 6)]);
                }
            }
            unset($side);
            [$old, $new] = [self::HEADER.implode('', $source), self::HEADER.implode('', $target)];
            [$apart, $oneAfterTheOther] = $this->both($old, $new, new TallySettings(partitions: 4, triesSideBySide: false));
            [$together, $sideBySide] = $this->both($old, $new, new TallySettings(partitions: 4));

            self::assertTrue(is_file($this->workspace.'/side-by-side'), 'The registers are near enough to be read at once.');
            self::assertSame($apart, $together, "round {$round}");
            self::assertSame($oneAfterTheOther, $sideBySide, "round {$round}");
        }
    }

    public function test_registers_in_another_order_are_read_one_after_the_other(): void
    {
        $rows = array_map(static fn(int $row): string => "KB,{$row},x\n", range(1, 300));
        $this->both(self::HEADER.implode('', $rows), self::HEADER.implode('', array_reverse($rows)), new TallySettings);

        self::assertFileDoesNotExist($this->workspace.'/side-by-side');
    }

    private string $workspace = '';

    /** @return array{list<string>, string} findings and figures */
    private function both(string $old, string $new, TallySettings $settings): array
    {
        [$source, $target] = [$this->reader($old, 'old.csv'), $this->reader($new, 'new.csv')];
        $this->workspace = $this->folder('work-'.bin2hex(random_bytes(4)));
        $findings = (new \NineTally\Core\Tally\TallyRun(
            Plan::pairing($source->columns, $target->columns, ['basin', 'berth']),
            new Sides($source, $target),
            $this->workspace,
            settings: $settings,
        ))->findings();
        $this->found = iterator_to_array($findings, false);

        return [$this->lines(), (string) json_encode($findings->getReturn()->toArray())];
    }
}
