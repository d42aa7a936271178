<?php

declare(strict_types=1);

namespace NineTally\Tests\Command;

use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** The command line as a pipeline meets it: exit status, standard output, standard error, files. */
final class TallyCommandTest extends TestCase
{
    use TemporaryFiles;

    private const OLD = "basin,berth,holder,fee\nKB,014,\"Thornøy, Ezekiel\",1412.60\nKB,015,Ann  ".
        "Lee,10\nLM,1,A,\nNQ,7,x,1\nNQ,7,x,1\n,,y,2\nNQ,8,z,3\nbad,row\n";

    private const NEW = "basin,berth,owner,fee,loaded\nKB,015,ann lee,10.00,t\nKB,014,\"Thornøy, ".
        "Ezekiel\",1412.6,t\nLM,1,A,7,t\nOT,9,=cmd,1,t\n";

    public function test_writes_what_differs_and_why(): void
    {
        $out = $this->folder('out');
        $process = $this->command([
            $this->file(self::OLD, 'old.csv'),
            $this->file(self::NEW, 'new.csv'),
            '--key=basin,berth',
            '--map=holder:owner',
            "--out={$out}",
            '--json',
        ]);

        self::assertSame(1, $process->getExitCode(), $process->getErrorOutput());
        self::assertSame(<<<'CSV'
            basin,berth,column,class,cause,source,target
            KB,014,fee,changed,number-form,1412.60,1412.6
            KB,015,holder,changed,spacing+case,Ann  Lee,ann lee
            KB,015,fee,changed,number-form,10,10.00
            LM,1,fee,filled,filled,,7

            CSV, file_get_contents("{$out}/differences.csv"));
        self::assertSame("part,line,reason,basin,berth,holder,fee\n1,8,,NQ,8,z,3\n", file_get_contents("{$out}/missing.csv"));
        self::assertSame("part,line,reason,basin,berth,owner,fee,loaded\n1,5,,OT,9,=cmd,1,t\n", file_get_contents("{$out}/extra.csv"));
        self::assertSame(
            "side,part,line,kept part,kept line,decided,source rows,target ".
                "rows,basin,berth,holder,fee,owner,loaded\nsource,1,5,,,,2,0,NQ,7,x,1,,\nsource,1,6,,,,2,0,NQ,7,x,1,,\n",
            file_get_contents("{$out}/repeated.csv"),
        );
        self::assertSame(
            "side,part,line,basin,berth,holder,fee,owner,loaded\nsource,1,7,,,y,2,,\n",
            file_get_contents("{$out}/unkeyed.csv"),
        );
        self::assertSame(
            "side,part,line,reason,what is wrong,raw\nsource,1,9,wrong-number-of-cells,2 cells where the header has 4,\"bad,row\"\n",
            file_get_contents("{$out}/refused.csv"),
        );
        $printed = json_decode($process->getOutput(), true, 16, JSON_THROW_ON_ERROR);
        self::assertSame($printed, json_decode((string) file_get_contents("{$out}/summary.json"), true, 16, JSON_THROW_ON_ERROR));
        self::assertIsArray($printed);
        self::assertSame(
            [
                'rows', 'reasons', 'keys', 'bridges', 'steps', 'references', 'cells', 'values', 'rows_arrived', 'right_of_arrived',
                'key_forgiven', 'without_entry', 'columns', 'patterns', 'engine',
            ],
            array_keys($printed),
        );
        self::assertSame(
            ['compared' => 6, 'identical' => 2, 'forgiven' => 0, 'changed' => 3, 'blanked' => 0, 'filled' => 1],
            $printed['cells'],
        );
        self::assertIsArray($printed['columns']);
        self::assertSame(['holder', 'fee'], array_column($printed['columns'], 'source'));
        self::assertSame(['owner', 'fee'], array_column($printed['columns'], 'target'));
        self::assertSame([], glob("{$out}/*.unfinished"));
    }

    public function test_a_plan_says_what_is_forgiven_and_it_is_listed(): void
    {
        $plan = $this->file(
            (string) json_encode([
                'formatVersion' => 3,
                'key' => [['source' => 'basin', 'target' => 'basin', 'forgives' => ['case']], ['source' => 'berth', 'target' => 'berth']],
                'columnPairs' => [
                    ['id' => 'pair-000000000000', 'source' => 'holder', 'target' => 'owner', 'forgives' => ['spacing', 'case']],
                    [
                        'id' => 'pair-000000000001',
                        'source' => 'fee',
                        'target' => 'fee',
                        'kind' => 'number',
                        'forgives' => ['number-form'],
                        'tolerance' => ['by' => 'absolute', 'most' => '0.5'],
                    ],
                ],
            ]),
            'plan.json',
        );
        $out = $this->folder('out');
        $process = $this->command([
            $this->file(self::OLD, 'old.csv'),
            $this->file("basin,berth,owner,fee\nkb,014,\"Thornøy, Ezekiel\",1412.20\nKB,015,ann lee,10.00\n", 'new.csv'),
            "--plan={$plan}",
            "--out={$out}",
            '--json',
            '--list-forgiven',
        ]);

        self::assertSame(1, $process->getExitCode(), $process->getErrorOutput());
        self::assertSame(
            "basin,berth,column,class,cause,source,target\nKB,014,fee,forgiven,tolerance,1412.60,1412.20\n".
                "KB,015,holder,forgiven,spacing+case,Ann  Lee,ann lee\nKB,015,fee,forgiven,number-form,10,10.00\n",
            file_get_contents("{$out}/forgiven.csv"),
        );
        $printed = json_decode($process->getOutput(), true, 16, JSON_THROW_ON_ERROR);
        self::assertIsArray($printed);
        self::assertSame([['source' => 'basin', 'target' => 'basin', 'cause' => 'case', 'cells' => 1]], $printed['key_forgiven']);
        self::assertSame(
            ['compared' => 4, 'identical' => 1, 'forgiven' => 3, 'changed' => 0, 'blanked' => 0, 'filled' => 0],
            $printed['cells'],
        );
        self::assertContains(
            [
                'source' => 'fee',
                'target' => 'fee',
                'class' => 'forgiven',
                'cause' => 'tolerance',
                'sentence' => 'within the declared tolerance, at most 0.4 apart, -0.4 in all',
                'facts' => ['largest' => '0.4', 'net' => '-0.4'],
                'cells' => 1,
                'examples' => [['source' => '1412.60', 'target' => '1412.20']],
            ],
            (array) $printed['patterns'],
        );
        // The lists say in which rows of the source it stands.
        $index = (array) json_decode((string) file_get_contents("{$out}/forgiven-postings.json"), true, 8, JSON_THROW_ON_ERROR);
        self::assertSame(
            [
                ['basin', true, 'case', 1],
                ['holder', false, 'spacing+case', 1],
                ['fee', false, 'number-form', 1],
                ['fee', false, 'tolerance', 1],
            ],
            array_map(
                static fn(mixed $list): array => is_array($list) ? [$list['source'], $list['isOfKey'], $list['cause'], $list['cells']] : [],
                $index,
            ),
        );
        self::assertSame(4 * 8, filesize("{$out}/forgiven.postings"));
    }

    public function test_a_plan_prepares_the_sides_and_what_its_steps_leave_out_is_written(): void
    {
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $plan = $this->file(
            (string) json_encode([
                'formatVersion' => 3,
                'key' => [$same('basin'), $same('month')],
                'columnPairs' => [['id' => 'pair-000000000000', ...$same('charge')]],
                'sides' => [
                    'source' => [
                        'preparation' => [
                            [
                                'id' => 'a',
                                'kind' => 'leave-out-rows',
                                'condition' => ['column' => 'since', 'test' => 'after', 'parameter' => 'cut-off'],
                                'reason' => 'not yet let',
                            ],
                            [
                                'id' => 'b',
                                'kind' => 'columns-into-rows',
                                'columns' => ['apr', 'may'],
                                'namesInto' => 'month',
                                'valuesInto' => 'charge',
                            ],
                        ],
                    ],
                    'target' => ['preparation' => [['id' => 'c', 'kind' => 'leave-out-blank-rows']]],
                ],
            ]),
            'plan.json',
        );
        $arguments = [
            $this->file("basin,since,apr,may\nKB,2020-01-01,1,2\nLM,2027-01-01,3,4\n", 'wide.csv'),
            $this->file("basin,month,charge\nKB,may,2\n,,\nKB,apr,1\n", 'long.csv'),
            "--plan={$plan}",
        ];
        $out = $this->folder('out');

        self::assertStringContainsString('has no parameter "cut-off"', $this->command($arguments)->getErrorOutput());
        $process = $this->command([...$arguments, "--out={$out}", '--parameter=cut-off=2026-01-01', '--workers=2', '--json']);
        // All that was compared agrees; what was left out by decision is said.
        self::assertSame(0, $process->getExitCode(), $process->getErrorOutput());
        self::assertStringContainsString(
            'All that was compared agrees. By decision, steps left out 1 row of the source and 1 row of the target.',
            $process->getErrorOutput(),
        );
        self::assertSame(
            "side,part,line,step,what the step does,reason,who answers for it,basin,since,month,charge,apr,may\nsource,1,3,1,Leave out ".
                "rows where since is after “cut-off” of the tally,not yet let,,LM,2027-01-01,,,3,4\ntarget,1,3,1,Leave out rows with ".
                "nothing in any column,,,,,,,,\n",
            file_get_contents("{$out}/left-out.csv"),
        );
        self::assertStringContainsString(
            '"delivered":2,"left_out":1,"made":1,"condensed":0,"prepared":2,"unkeyed":0,"repeated":0,"agreed":2',
            $process->getOutput(),
        );
    }

    public function test_more_workers_less_memory_and_packed_input_give_the_same_bytes(): void
    {
        $rows = array_map(static fn(int $row): string => "KB,{$row},Holder {$row},".($row % 7).".50\n", range(1, 3_000));
        $new = array_map(static fn(int $row): string => "KB,{$row},HOLDER {$row},".($row % 7).".5\n", range(2_900, 1));
        $old = $this->file("basin,berth,holder,fee\n".implode('', $rows), 'old.csv');
        $packed = $this->file((string) gzencode("basin,berth,holder,fee\n".implode('', $new)), 'new.csv.gz');
        $written = [];
        foreach ([['--workers=1'], ['--workers=2', '--quiet'], ['--workers=4', '--memory=16M']] as $number => $options) {
            $out = $this->folder("out{$number}");
            self::assertSame(1, $this->command([$old, $packed, '--key=basin,berth', "--out={$out}", ...$options])->getExitCode());
            $written[] = array_map(
                static fn(string|false $path): string => (string) file_get_contents((string) $path),
                (array) glob("{$out}/*"),
            );
        }

        self::assertSame($written[0], $written[1]);
        self::assertSame($written[0], $written[2]);
        self::assertStringContainsString('KB,1,holder,changed,case,Holder 1,HOLDER 1', implode('', $written[0]));
    }

    public function test_one_side_may_come_by_standard_input_and_be_json(): void
    {
        $process = $this->command(
            [$this->file("berth,fee,paid\n14,1e400,true\n15,7,\n", 'old.csv'), '-', '--key=berth', '--json'],
            "{\"berth\":14,\"fee\":1e400,\"paid\":true}\n{\"fee\":7.0,\"berth\":\"15\",\"paid\":null,\"tags\":[1.10,{}]}\nno object\n",
        );

        self::assertSame(1, $process->getExitCode(), $process->getErrorOutput());
        $printed = json_decode($process->getOutput(), true, 16, JSON_THROW_ON_ERROR);
        self::assertIsArray($printed);
        self::assertSame(
            ['compared' => 4, 'identical' => 3, 'forgiven' => 0, 'changed' => 1, 'blanked' => 0, 'filled' => 0],
            $printed['cells'],
        );
        self::assertStringContainsString('"refused":1', $process->getOutput());
    }

    public function test_quiet_prints_nothing_but_what_was_asked_for(): void
    {
        $file = $this->file("basin,berth\nKB,1\n,2\n");

        self::assertSame('', $this->command([$file, $file, '--key=basin,berth', '--quiet'])->getOutput());
        self::assertStringStartsWith('{"rows"', $this->command([$file, $file, '--key=basin,berth', '--quiet', '--json'])->getOutput());
        self::assertSame('', $this->command([$file, $file, '--key=basin,berth', '--quiet'])->getErrorOutput());
    }

    public function test_exit_status_0_says_that_all_agree(): void
    {
        $file = $this->file("basin,berth\nKB,1\nKB,2\n");
        $process = $this->command([$file, $file, '--key=basin,berth']);

        self::assertSame(0, $process->getExitCode());
        self::assertStringContainsString(
            "Source 2 read = 0 refused + 2 delivered\n       2 delivered + 0 made = 0 left out + 0 condensed + 2 prepared\n       2 ".
                "prepared = 2 agreed + 0 changed + 0 missing + 0 repeated + 0 unkeyed\n",
            $process->getOutput(),
        );
    }

    public function test_a_refused_record_is_a_difference(): void
    {
        $process = $this->command([
            $this->file("basin,berth\nKB,1\nKB\n", 'old.csv'),
            $this->file("basin,berth\nKB,1\n", 'new.csv'),
            '--key=basin,berth',
        ]);

        self::assertSame(1, $process->getExitCode());
    }

    /** As many rows as there were records prove nothing where steps make, condense or leave out rows. */
    #[DataProvider('prepared')]
    public function test_the_exit_status_goes_by_prepared_rows(string $old, string $new, string $condition, int $status, string $says): void
    {
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $preparation = [
            ['id' => 'a', 'kind' => 'leave-out-rows', 'condition' => ['column' => 'id', 'test' => 'is', 'value' => $condition]],
            ['id' => 'b', 'kind' => 'columns-into-rows', 'columns' => ['jan', 'feb'], 'namesInto' => 'm', 'valuesInto' => 'v'],
        ];
        $plan = $this->file(
            (string) json_encode([
                'formatVersion' => 3,
                'key' => [$same('id'), $same('m')],
                'columnPairs' => [['id' => 'pair-000000000000', ...$same('v')]],
                'sides' => ['source' => ['preparation' => $preparation], 'target' => ['preparation' => $preparation]],
            ]),
            'plan.json',
        );
        $process = $this->command([
            $this->file("id,jan,feb\n{$old}", 'old.csv'),
            $this->file("id,jan,feb\n{$new}", 'new.csv'),
            "--plan={$plan}",
        ]);

        self::assertSame($status, $process->getExitCode(), $process->getOutput());
        self::assertStringContainsString($says, $process->getOutput().$process->getErrorOutput());
    }

    /** @return iterable<string, array{string, string, string, int, string}> */
    public static function prepared(): iterable
    {
        yield 'two of four long rows differ' => ["1,10,20\n2,30,40\n", "1,10,21\n2,30,41\n", '9', 1, '4 prepared = 2 agreed + 2 changed'];
        yield 'four long rows of two wide ones agree' => [
            "1,10,20\n2,30,40\n",
            "1,10,20\n2,30,40\n",
            '9',
            0,
            '2 delivered + 2 made = 0 left out + 0 condensed + 4 prepared',
        ];
        yield 'the rest of the rows agrees' => [
            "1,10,20\n2,30,40\n",
            "1,10,20\n",
            '2',
            0,
            'By decision, steps left out 1 row of the source and 0 rows of the target.',
        ];
        yield 'a side that the steps emptied' => [
            "2,30,40\n",
            "1,10,20\n",
            '2',
            1,
            'The steps leave out every row of the source (the last of them by step 1: Leave out rows where id is "2"), so nothing could '.
                'be compared.',
        ];
    }

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
        ]);
        $folder = $this->folder('tally');
        foreach (
            [
                'spring.csv' => "berth,length,since\n1,6.4,2020-01-01\n2,6.5,2027-01-01\n",
                'summer.csv' => "length;berth;since\n9;3;2020-01-01\n",
                'bands.csv' => "from;fee\n0;120\n6,5;180\n",
                'new.csv' => "berth,fee,quarter\n1,120,spring\n3,180,high summer\n",
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
            "--plan={$folder}/plan.json",
            '--parameter=cut-off=2026-01-01',
        ];
        $written = [];
        foreach ([$given, [...$given, '--workers=2'], ["--from={$folder}"]] as $number => $arguments) {
            $out = $this->folder("out{$number}");
            $process = $this->command([...$arguments, "--out={$out}"]);
            self::assertSame(0, $process->getExitCode(), $process->getErrorOutput().$process->getOutput());
            $written[] = array_map(
                static fn(string|false $path): string => (string) file_get_contents((string) $path),
                (array) glob("{$out}/*"),
            );
        }

        self::assertSame([$written[0], $written[0]], [$written[1], $written[2]]);
        /** @var array{references: array{source: list<mixed>}, steps: array{source: list<array{notes: array<string, int>}>}} $summary */
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
        self::assertSame(['found a record' => 2], $summary['steps']['source'][1]['notes']);
    }

    /** @param list<string> $arguments */
    #[DataProvider('notUsable')]
    public function test_exit_status_2_comes_with_one_clear_message_and_leaves_nothing_behind(
        string $old,
        string $new,
        array $arguments,
        string $says,
    ): void {
        $out = $this->folder().'/out';
        $process = $this->command([$this->file($old, 'old.csv'), $this->file($new, 'new.csv'), "--out={$out}", ...$arguments]);

        self::assertSame(2, $process->getExitCode());
        self::assertSame('', $process->getOutput());
        self::assertStringContainsString($says, $process->getErrorOutput());
        self::assertStringNotContainsString('.php', $process->getErrorOutput());
        self::assertSame([], is_dir($out) ? array_diff((array) scandir($out), ['.', '..']) : []);
    }

    /** @return iterable<string, array{string, string, list<string>, string}> */
    public static function notUsable(): iterable
    {
        $good = "basin,berth,fee\nKB,1,2\n";
        yield 'an empty file' => ['', $good, ['--key=basin'], 'old.csv" is empty'];
        yield 'no key' => [$good, $good, [], 'No key was given. Name the columns that tell one row from another, such as --key=basin.'];
        yield 'a key column that is not there' => [
            $good,
            $good,
            ['--key=bassin'],
            'has no column "bassin". Its columns are: basin, berth, fee.',
        ];
        yield 'a key column that only one side has' => [$good, "quay,fee\n1,2\n", ['--key=basin'], 'new.csv" has no column "basin"'];
        yield 'an unknown mapped column' => [$good, $good, ['--key=basin', '--map=fee:charge'], 'new.csv" has no column "charge"'];
        yield 'a map that is no pair' => [$good, $good, ['--key=basin', '--map=fee'], '--map=fee is not a pair'];
        yield 'duplicate header names that the plan touches' => [
            "basin,fee,fee\nKB,1,2\n",
            $good,
            ['--key=basin'],
            'names column "fee" 2 times, so nobody can say which one is meant. Say which by its place, as "fee (column 2)"',
        ];
        yield 'another kind of file' => ["PK\x03\x04", $good, ['--key=basin'], 'breaks off in the middle or is damaged'];
        yield 'a packed file that breaks off' => [
            substr((string) gzencode(str_repeat($good, 3_000)), 0, -40),
            $good,
            ['--key=basin'],
            'old.csv" breaks off',
        ];
        yield 'a JSON document that breaks off' => ['[{"basin":1},{"basin":', $good, ['--key=basin'], 'old.csv" breaks off'];
        yield 'JSON that is no register' => ['[1, 2]', $good, ['--key=basin'], 'no object in it has a property'];
        yield 'a plan and a key' => [$good, $good, ['--key=basin', '--plan=x'], 'Give either --plan, or --key'];
        yield 'a plan that is not there' => [$good, $good, ['--plan=/nowhere/plan.json'], 'cannot be opened'];
        yield 'no number of workers' => [$good, $good, ['--key=basin', '--workers=many'], '--workers=many is not a number of processes'];
        yield 'no size' => [$good, $good, ['--key=basin', '--memory=lots'], '--memory=lots is no size'];
        yield 'no delimiter' => [$good, $good, ['--key=basin', '--delimiter=dot'], '--delimiter is one of comma'];
        yield 'a header that a quote holds open' => ["basin,berth,\"fee
KB,1,2
",
            $good,
            ['--key=basin'],
            'the quote opened on line 1 is never closed',
        ];
        yield 'a worker that cannot read on' => [
            substr((string) gzencode(str_repeat($good, 3_000)), 0, -40),
            $good,
            ['--key=basin', '--workers=2'],
            'old.csv" breaks off',
        ];
        yield 'a reference without a file' => [
            $good,
            $good,
            ['--key=basin', '--reference=Basins'],
            '--reference=Basins names no file. Write --reference=name=file.',
        ];
        yield 'a folder and what it says' => [
            $good,
            $good,
            ['--from=/nowhere'],
            'The folder of --from says all that a tally is made of. Take source, target out.',
        ];
        yield 'an unknown option' => [$good, $good, ['--keys=basin'], 'The "--keys" option does not exist'];
    }

    public function test_header_only_is_a_warning(): void
    {
        $process = $this->command([
            $this->file("basin,berth\n", 'old.csv'),
            $this->file("basin,berth\nKB,1\n", 'new.csv'),
            '--key=basin,berth',
        ]);

        self::assertSame(1, $process->getExitCode());
        self::assertStringContainsString('Warning: The source delivers no rows', $process->getErrorOutput());
    }

    public function test_a_folder_and_a_file_that_is_not_there_are_named(): void
    {
        self::assertStringContainsString(
            '"/nowhere" holds no tally: tally.json is not there',
            $this->command(['--from=/nowhere'])->getErrorOutput(),
        );
        self::assertStringContainsString('Name the file of the source and the file of the target', $this->command([])->getErrorOutput());
        $file = $this->file("basin\nKB\n");

        self::assertStringContainsString('is a folder', $this->command([$this->folder(), $file, '--key=basin'])->getErrorOutput());
        self::assertStringContainsString('cannot be opened', $this->command([$file, '/nowhere/new.csv', '--key=basin'])->getErrorOutput());
    }

    /** @param list<string> $arguments */
    private function command(array $arguments, string $input = ''): Process
    {
        $process = new Process([PHP_BINARY, dirname(__DIR__, 2).'/bin/nine-tally', 'tally', ...$arguments], input: $input);
        $process->run();

        return $process;
    }
}
