<?php

declare(strict_types=1);

namespace NineTally\Tests\Command;

use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\TestCase;

/** All that a tally was made of is given on the command line, or by a folder that says it again. */
final class TallyFromFolderTest extends TestCase
{
    use RunsTally;

    use TemporaryFiles;

    public function test_parts_references_and_parameters_are_given_and_a_folder_says_all_of_it_again(): void
    {
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $steps = [
            ['id' => 'a', 'kind' => 'leave-out-rows', 'condition' => ['column' => 'since', 'test' => 'after', 'parameter' => 'cut-off']],
            [
                'id' => 'b',
                'kind' => 'look-up-band',
                'reference' => 'Length bands',
                'column' => 'length',
                'from' => 'from',
                'take' => [['reference' => 'fee', 'into' => 'fee']],
            ],
        ];
        $plan = (string) json_encode([
            'formatVersion' => 3,
            'key' => [$same('berth')],
            'columnPairs' => [
                ['id' => 'pair-000000000000', ...$same('fee')],
                ['id' => 'pair-000000000001', 'source' => 'quarter', 'target' => 'quarter'],
            ],
            'references' => ['Length bands' => ['decimalMark' => ',', 'key' => ['from']]],
            'sides' => ['source' => ['preparation' => $steps]],
            'records' => [['in' => 'Berths', 'columns' => [$same('berth')], 'by' => [['source' => 'no', 'target' => 'id']]]],
        ]);
        $folder = $this->folder('tally');
        foreach (
            [
                'spring.csv' => "berth,length,since\n1,6.4,2020-01-01\n2,6.5,2027-01-01\n",
                'summer.csv' => "length;berth;since\n9;3;2020-01-01\n",
                'bands.csv' => "from;fee\n0;120\n6,5;180\n",
                'new.csv' => "berth,fee,quarter\n1,120,spring\n3,180,high summer\n",
                'berths-old.csv' => "no\n1\n3\n",
                'berths-new.csv' => "id\n1\n4\n",
                'plan.json' => $plan,
            ]
            as $name => $content
        ) {
            file_put_contents("{$folder}/{$name}", $content);
        }
        file_put_contents(
            "{$folder}/tally.json",
            json_encode(
                [
                    'source' => [
                        'labelColumn' => 'quarter',
                        'parts' => [
                            [
                                'file' => 'spring.csv',
                                'label' => 'spring',
                                'format' => ['kind' => 'delimited', 'delimiter' => 'comma', 'lineEnds' => 'LF'],
                            ],
                            ['file' => 'summer.csv', 'label' => 'high summer'],
                        ],
                    ],
                    'target' => ['parts' => [['file' => 'new.csv']]],
                    'references' => ['Length bands' => ['parts' => [['file' => 'bands.csv']]]],
                    'records' => ['Berths' => [
                        'source' => ['parts' => [['file' => 'berths-old.csv']]],
                        'target' => ['parts' => [['file' => 'berths-new.csv']]],
                    ]],
                    'parameters' => ['cut-off' => '2026-01-01'],
                ],
                JSON_THROW_ON_ERROR,
            ),
        );
        $given = [
            "spring={$folder}/spring.csv",
            "{$folder}/new.csv",
            "--source-part=high summer={$folder}/summer.csv",
            '--source-label-column=quarter',
            "--reference=Length bands={$folder}/bands.csv",
            "--source-records=Berths={$folder}/berths-old.csv",
            "--target-records=Berths={$folder}/berths-new.csv",
            "--plan={$folder}/plan.json",
            '--parameter=cut-off=2026-01-01',
        ];
        $written = [];
        $again = ["--from={$folder}"];
        foreach ([$given, [...$given, '--workers=2'], $again, [...$again, '--workers=2']] as $number => $arguments) {
            $out = $this->folder("out{$number}");
            $process = $this->command([...$arguments, "--out={$out}"]);
            self::assertSame(0, $process->getExitCode(), $process->getErrorOutput().$process->getOutput());
            $written[] = array_map(
                static fn(string|false $path): string => (string) file_get_contents((string) $path),
                (array) glob("{$out}/*"),
            );
        }

        self::assertSame(array_fill(0, 4, $written[0]), $written);
        /**
         * @var array{references: array{source: list<mixed>}, steps: array{source: list<array{notes: array<string, int>}>},
         *     records: list<array{missing: list<array{kind: string, values: list<string>}>}>} $summary
         */
        $summary = json_decode((string) file_get_contents($this->folder('out0').'/summary.json'), true, 16, JSON_THROW_ON_ERROR);
        self::assertSame(
            [['Length bands', 2, 2, 0]],
            array_map(
                static fn(mixed $ledger): array => is_array($ledger)
                    ? [$ledger['name'], $ledger['delivered'], $ledger['prepared'], $ledger['repeatedKeys']]
                    : [],
                $summary['references']['source'],
            ),
        );
        self::assertSame([['lost', ['3']]], array_map(
            static fn(array $one): array => [$one['kind'], $one['values']],
            $summary['records'][0]['missing'],
        ));
        self::assertSame(['found a record' => 2], $summary['steps']['source'][1]['notes']);
    }
}
