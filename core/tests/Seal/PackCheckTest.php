<?php

declare(strict_types=1);

namespace NineTally\Tests\Seal;

use NineTally\Core\Seal\BagWriter;
use NineTally\Core\Seal\CheckLine;
use NineTally\Core\Seal\HandOver;
use NineTally\Core\Seal\PackCheck;
use NineTally\Core\Seal\Seal;
use NineTally\Core\Seal\SealKey;
use NineTally\Core\Seal\UnusableKey;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** A pack that anybody can check, and what is found of one that was changed. */
final class PackCheckTest extends TestCase
{
    use TemporaryFiles;

    private const FILES = [
        'report.html' => '<h1>Moorings agree</h1>',
        'findings/rows.csv' => "class,key\nmissing,KB 1\n",
        'deliveries.csv' => "side,digest\n",
    ];

    public function test_a_pack_fits_and_says_under_which_key(): void
    {
        $pack = $this->pack();
        $checked = PackCheck::of($pack, strtoupper(chunk_split($this->key()->fingerprint(), 4, ' ')));

        self::assertSame(['fits', 'fits', 'fits'], array_column($checked->lines, 'state'));
        self::assertStringContainsString('Moorings, tally 1', $checked->lines[2]->words);
        // Whoever has confirmed no key is told so, and nothing is wrong with the pack.
        $unconfirmed = PackCheck::of($pack);
        self::assertTrue($unconfirmed->fits());
        self::assertContains('unknown', array_column($unconfirmed->lines, 'state'));
    }

    public function test_any_byte_that_is_changed_in_any_file_is_found_and_its_file_named(): void
    {
        $entries = $this->entries($this->pack());
        self::assertCount(11, $entries);
        foreach ($entries as $name => $content) {
            foreach (array_unique([0, intdiv(strlen($content), 2), strlen($content) - 1]) as $place) {
                $changed = $content;
                $changed[$place] = chr(ord($changed[$place]) ^ 1);
                $found = $this->differing($this->zip([$name => $changed] + $entries));
                $file = substr($name, strlen('agents/'));
                // A seal, its signature and its key stand or fall together.
                $isNamed = array_intersect(str_starts_with($file, 'seal/') ? [BagWriter::SEAL, BagWriter::KEY] : [$file], $found) !== [];
                self::assertTrue($isNamed, "{$file}, byte {$place}: ".implode(', ', $found));
            }
        }
    }

    public function test_whoever_seals_a_changed_pack_anew_is_found_by_the_fingerprint(): void
    {
        $forged = $this->pack(['report.html' => '<h1>Moorings disagree</h1>'] + self::FILES, SealKey::ofSeed(str_repeat('f', 32)));

        self::assertTrue(PackCheck::of($forged)->fits());
        self::assertSame([BagWriter::KEY], $this->differing($forged));
    }

    /** @return iterable<string, array{array<string, string>, string, string}> what is put in, taken out, and the file that is named */
    public static function badPacks(): iterable
    {
        yield 'a file is missing' => [[], 'agents/data/report.html', 'data/report.html'];
        yield 'a file was put in' => [['agents/data/more.csv' => 'x'], '', 'data/more.csv'];
        yield 'a file was put in beside the payload' => [['agents/run.sh' => 'x'], '', 'run.sh'];
        yield 'a path leads outside' => [['agents/../evil' => 'x'], '', 'agents/../evil'];
        yield 'an absolute path' => [['/etc/passwd' => 'x'], '', '/etc/passwd'];
        yield 'a name twice by its case' => [['agents/data/Report.html' => 'x'], '', 'agents/data/Report.html'];
        yield 'two folders at the top' => [['other/data/x' => 'x'], '', 'other/data/x'];
        yield 'a bomb' => [['agents/data/zeros' => str_repeat("\0", 30_000_000)], '', 'agents/data/zeros'];
        yield 'no manifest' => [[], 'agents/manifest-sha256.txt', BagWriter::MANIFEST];
        yield 'no seal' => [[], 'agents/seal/seal.json', BagWriter::SEAL];
    }

    /** @param array<string, string> $put */
    #[DataProvider('badPacks')]
    public function test_a_bad_pack_is_refused_in_words(array $put, string $taken, string $file): void
    {
        self::assertContains($file, $this->differing($this->zip(array_diff_key($this->entries($this->pack()), [$taken => 1]) + $put)));
    }

    public function test_what_is_no_zip_is_said_so(): void
    {
        $path = $this->file('no pack at all', 'agents.zip');
        self::assertSame(['agents.zip'], $this->differing($path));
        self::assertFalse(PackCheck::of($this->folder().'/nowhere.zip')->fits());
    }

    public function test_it_is_verified_with_nothing_of_ours(): void
    {
        $zip = new \ZipArchive;
        $zip->open($this->pack());
        $zip->extractTo($this->folder());
        $folder = escapeshellarg($this->folder().'/agents');
        foreach (
            [
                'sha256sum --strict --quiet -c manifest-sha256.txt',
                'sha256sum --strict --quiet -c tagmanifest-sha256.txt',
                'openssl pkeyutl -verify -pubin -inkey seal/key.pem -rawin -in seal/seal.json -sigfile seal/seal.sig',
                'test "$(openssl pkey -pubin -in seal/key.pem -outform DER | sha256sum | cut -c1-64)" = '.$this->key()->fingerprint(),
            ] as $command
        ) {
            exec("cd {$folder} && {$command} 2>&1", $said, $status);
            self::assertSame(0, $status, $command.': '.implode("\n", $said));
        }
    }

    public function test_whoever_holds_the_fingerprint_of_an_earlier_key_finds_the_one_that_followed(): void
    {
        [$first, $second, $third] = array_map(static fn(string $of): SealKey => SealKey::ofSeed(str_repeat($of, 32)), ['a', 'b', 'c']);
        $files = self::FILES;
        foreach ([[$first, $second], [$second, $third]] as $place => [$old, $new]) {
            $handOver = HandOver::of($old, $new, new \DateTimeImmutable('2026-11-29T12:00:00Z'));
            $number = $place + 1;
            $files["keys/{$number}-key.pem"] = $old->publicPem();
            $files["keys/{$number}-hand-over.json"] = $handOver->statement;
            $files["keys/{$number}-hand-over.sig"] = $handOver->signature;
        }
        $pack = $this->pack($files, $third);
        foreach ([$first, $second, $third] as $key) {
            self::assertTrue(PackCheck::of($pack, $key->fingerprint())->fits());
        }
        // A forger has a key of their own, and the old one never named it.
        $forger = SealKey::ofSeed(str_repeat('f', 32));
        $files['keys/2-hand-over.json'] = str_replace(
            $third->fingerprint(),
            $forger->fingerprint(),
            HandOver::of($second, $third, new \DateTimeImmutable('2026-11-29T12:00:00Z'))->statement,
        );
        self::assertFalse(PackCheck::of($this->pack($files, $forger), $first->fingerprint())->fits());
        self::assertFalse(PackCheck::of($this->pack(['report.html' => 'x'], $forger), $first->fingerprint())->fits());
    }

    /** Written from RFC 8493, sections 2.1 to 2.2.2 and 3, and from nothing of ours. */
    public function test_a_pack_is_a_bag_by_the_letter_of_the_standard(): void
    {
        $zip = new \ZipArchive;
        $zip->open($this->pack());
        $zip->extractTo($this->folder());
        $bag = $this->folder().'/agents';
        // 2.1.1: two lines, in this order.
        self::assertMatchesRegularExpression(
            '/\ABagIt-Version: \d+\.\d+\nTag-File-Character-Encoding: UTF-8\n\z/',
            (string) file_get_contents("{$bag}/bagit.txt"),
        );
        $files = [];
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($bag, \FilesystemIterator::SKIP_DOTS)) as $file) {
            self::assertInstanceOf(\SplFileInfo::class, $file);
            $files[substr($file->getPathname(), strlen($bag) + 1)] = (int) $file->getSize();
        }
        $payload = array_filter($files, static fn(string $name): bool => str_starts_with($name, 'data/'), ARRAY_FILTER_USE_KEY);
        // 2.1.3 and 2.2.1: every payload file once, each tag file that is listed there; a payload manifest lists no tag file.
        foreach (['manifest-sha256.txt' => true, 'tagmanifest-sha256.txt' => false] as $manifest => $isOfPayload) {
            $listed = [];
            foreach (explode("\n", rtrim((string) file_get_contents("{$bag}/{$manifest}"), "\n")) as $line) {
                [$digest, $name] = [...preg_split('/[ \t]+/', $line, 2) ?: [], '', ''];
                self::assertMatchesRegularExpression('/\A[0-9a-fA-F]{64}\z/', $digest);
                self::assertArrayHasKey($name, $files);
                self::assertSame($isOfPayload, str_starts_with($name, 'data/'));
                self::assertSame(strtolower($digest), hash_file('sha256', "{$bag}/{$name}"));
                $listed[] = $name;
            }
            self::assertSame($listed, array_unique($listed));
            self::assertSame(
                [],
                array_diff($isOfPayload ? array_keys($payload) : ['bagit.txt', 'bag-info.txt', 'manifest-sha256.txt'], $listed),
            );
        }
        // 2.2.2: labels and values; octets and streams of the payload.
        preg_match_all('/^([^:\s][^:]*): ?(.*)$/m', (string) file_get_contents("{$bag}/bag-info.txt"), $info);
        self::assertSame(array_sum($payload).'.'.count($payload), array_combine($info[1], $info[2])['Payload-Oxum'] ?? null);
    }

    public function test_a_key_is_read_as_it_is_written_and_in_no_other_way(): void
    {
        $key = $this->key();
        self::assertSame($key->fingerprint(), SealKey::fromPublicPem($key->publicPem())->fingerprint());
        self::assertSame($key->sign('x'), SealKey::fromPrivatePem($key->privatePem())->sign('x'));
        $this->expectException(UnusableKey::class);
        SealKey::fromPublicPem("a note\n".$key->publicPem());
    }

    /** @param array<string, string> $files */
    private function pack(array $files = self::FILES, ?SealKey $key = null): string
    {
        $key ??= $this->key();
        $path = $this->folder().'/pack-'.bin2hex(random_bytes(4)).'.zip';
        $bag = BagWriter::at($path, 'agents');
        foreach ($files as $name => $content) {
            $name === 'report.html' ? $bag->file($name, $this->file($content, 'report.html')) : $bag->text($name, $content);
        }
        $bag->finish(
            ['Bagging-Date' => '2026-11-29'],
            ['README.txt' => "How to check it\n"],
            $key,
            static fn(string $tagManifest): Seal => Seal::over(
                $tagManifest,
                null,
                null,
                'Moorings, tally 1',
                new \DateTimeImmutable('2026-11-29T12:00:00Z'),
                $key,
            ),
        );

        return $path;
    }

    private function key(): SealKey
    {
        return SealKey::ofSeed(str_repeat('k', 32));
    }

    /** @return list<string> files that do not fit */
    private function differing(string $pack): array
    {
        $lines = array_filter(
            PackCheck::of($pack, $this->key()->fingerprint())->lines,
            static fn(CheckLine $line): bool => $line->state === 'differs',
        );

        return array_map(static fn(CheckLine $line): string => $line->about, array_values($lines));
    }

    /** @return array<string, string> */
    private function entries(string $path): array
    {
        $zip = new \ZipArchive;
        $zip->open($path);
        $entries = [];
        for ($index = 0; $index < $zip->numFiles; $index++) {
            $entries[(string) $zip->getNameIndex($index)] = (string) $zip->getFromIndex($index);
        }

        return $entries;
    }

    /** @param array<string, string> $entries */
    private function zip(array $entries): string
    {
        $path = $this->folder().'/zip-'.bin2hex(random_bytes(4)).'.zip';
        $zip = new \ZipArchive;
        $zip->open($path, \ZipArchive::CREATE);
        foreach ($entries as $name => $content) {
            $zip->addFromString($name, $content);
        }
        $zip->close();

        return $path;
    }
}
