<?php

declare(strict_types=1);

namespace Tests\Browser;

use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Walks\WalkFiles;

/**
 * From two unknown files to the first list of findings, by somebody who was told nothing: each press, each choice from a list (two
 * presses), each file and each typed field is counted. What comes out must be what the files were made to hold.
 */
final class FirstHourTest extends BrowserTestCase
{
    private int $clicks = 0;

    private int $fields = 0;

    private WalkFiles $files;

    protected function setUp(): void
    {
        parent::setUp();
        $this->files = new WalkFiles(storage_path('work'));
        $this->signIn('ruth.osei@wherrymoor.example');
        $this->see('Wherrymoor cutover');
        [$this->clicks, $this->fields] = [0, 0];
    }

    /**
     * @param  list<string>  $matching  what is pressed on Match, in that order, until all is said
     * @param  array{int, int}  $most  clicks and typed fields
     */
    #[DataProvider('walks')]
    public function test_two_unknown_files_are_findings_in_a_few_clicks(string $files, array $matching, string $balance, array $most): void
    {
        $paths = match ($files) {
            'vessels' => $this->files->vessels(),
            'holders' => $this->files->holders(),
            'stores' => $this->files->stores(),
            'clocks' => $this->files->clocks(),
            default => $this->files->tolls(),
        };
        $this->press('Add a dataset');
        $this->type('Name of the dataset', ucfirst($files));
        $this->press('Add it and deliver both sides');
        foreach (['old', 'new'] as $nth => $side) {
            $this->attach("File of the {$side} register", (string) file_get_contents($paths[$nth]), basename($paths[$nth]));
            $this->press('Accept this delivery');
            $this->see("delivery 1 of the {$side} register");
        }
        $this->press('Match the rows');
        foreach ($matching as $press) {
            $this->press($press);
        }
        $this->press('Tally ');
        $this->see('Every row is accounted for');
        $this->see($balance);
        $this->press('Review tally 1');
        $this->see('What differs, and why');

        fwrite(STDERR, "\n{$files}: {$this->clicks} clicks, {$this->fields} typed fields\n");
        self::assertLessThanOrEqual($most[0], $this->clicks);
        self::assertLessThanOrEqual($most[1], $this->fields);
    }

    /** @return iterable<string, array{string, list<string>, string, array{int, int}}> */
    public static function walks(): iterable
    {
        yield 'vessels: other names of columns, days with years of two digits' => [
            'vessels',
            ['Take all '],
            '25 changed',
            [12, 1],
        ];
        yield 'holders: two encodings' => ['holders', [], '36 missing', [12, 1]];
        yield 'stores: the key that tells rows apart joins none of them' => ['stores', ['Take it'], '10 missing', [12, 1]];
        yield 'clocks: words for yes and no' => ['clocks', ['Take it'], '15 changed', [12, 1]];
        yield 'tolls: wide against long, lost zeros, months in words, decimal commas' => [
            'tolls',
            ['Turn them into rows', 'Use it as the key', 'Bring in 1,728 rows', 'Take all 2'],
            '24 changed',
            [20, 4],
        ];
    }

    protected function press(string $name): void
    {
        parent::press($name);
        $this->clicks++;
    }

    protected function type(string $label, string $text): void
    {
        parent::type($label, $text);
        $this->fields++;
    }

    protected function choose(string $field, string $option): void
    {
        parent::choose($field, $option);
        $this->clicks += 2;
    }

    protected function attach(string $label, string $content, string $name): void
    {
        parent::attach($label, $content, $name);
        $this->clicks++;
    }
}
