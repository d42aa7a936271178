<?php

declare(strict_types=1);

namespace NineTally\Tests\Command;

use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\TestCase;

/** The command line as a pipeline meets it: exit status, standard output, standard error, files. */
final class TallyCommandTest extends TestCase
{
    use RunsTally;

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
            basin,berth,column,class,cause,source,target,difference
            KB,014,fee,changed,number-form,1412.60,1412.6,
            KB,015,holder,changed,spacing+case,Ann  Lee,ann lee,
            KB,015,fee,changed,number-form,10,10.00,
            LM,1,fee,filled,filled,,7,

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
                'rows', 'reasons', 'bridged', 'parts', 'keys', 'bridges', 'steps', 'agreed_by_rule', 'references', 'cells', 'values',
                'rows_arrived', 'right_of_arrived', 'key_forgiven', 'without_entry', 'columns', 'patterns', 'engine',
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
            "basin,berth,column,class,cause,source,target,difference\n".
                "KB,014,basin,forgiven,case,KB,kb,\nKB,014,fee,forgiven,tolerance,1412.60,1412.20,-0.4\n".
                "KB,015,holder,forgiven,spacing+case,Ann  Lee,ann lee,\nKB,015,fee,forgiven,number-form,10,10.00,0\n",
            file_get_contents("{$out}/forgiven.csv"),
        );
        $printed = json_decode($process->getOutput(), true, 16, JSON_THROW_ON_ERROR);
        self::assertIsArray($printed);
        self::assertSame(
            [
                [
                    'source' => 'basin',
                    'target' => 'basin',
                    'cause' => 'case',
                    'cells' => 1,
                    'examples' => [['source' => 'KB', 'target' => 'kb']],
                ],
            ],
            $printed['key_forgiven'],
        );
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
        // Where a process cannot be copied, others are started.
        $started = [
            'PHP_INI_SCAN_DIR' =>
                PHP_CONFIG_FILE_SCAN_DIR.':'.dirname($this->file("disable_functions = pcntl_fork\n", 'no-copies.ini')),
        ];
        foreach (
            [[['--workers=1'], []], [['--workers=2', '--quiet'], $started], [['--workers=4', '--memory=16M'], []]]
            as $number => [$options, $environment]
        ) {
            $out = $this->folder("out{$number}");
            $run = $this->command([$old, $packed, '--key=basin,berth', "--out={$out}", ...$options], environment: $environment);
            self::assertSame(1, $run->getExitCode(), $run->getErrorOutput());
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
}
