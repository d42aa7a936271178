<?php

declare(strict_types=1);

namespace Tests\Feature\Notices;

use App\Jobs\TellPeopleOfTally;
use App\Models\Migration;
use App\Models\Notice;
use App\Models\NoticeKind;
use App\Models\Role;
use Illuminate\Support\Facades\File;
use Tests\TestCase;

/** People are told of what happens without their asking: in the application, and by mail if they choose so. */
final class NoticeTest extends TestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        File::deleteDirectory(storage_path('mailbox'));
        $this->actingAs($this->analyst);
        $this->deliver('source', "basin,berth,fee\nKB,1,10\nKB,2,20\n");
        $this->deliver('target', "basin,berth,fee\nKB,1,10\nKB,2,25\n");
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('basin'), $same('berth')],
            'columnPairs' => [$same('fee')],
            'leftOut' => ['source' => [], 'target' => []],
        ])->assertOk();
        $manager = $this->person('Ines Varga');
        $this->migration->memberships()->create(['user_id' => $manager->id, 'role' => Role::TestManager]);
        $limits = ['limits' => [['figure' => 'rows-missing', 'worst' => '0']], 'draft' => 1];
        $this->actingAs($manager)->api('PUT', "/datasets/{$this->dataset->id}/limits", $limits)->assertOk();
        $this->actingAs($this->analyst);
    }

    public function test_a_tally_tells_what_the_one_before_did_not_have_and_whose_limits_fail(): void
    {
        $this->choose(NoticeKind::NewRepeats, true, true);
        $this->tallies();
        self::assertSame([], $this->letters());
        self::assertSame(['tally-done'], $this->kinds());

        $this->deliver('source', "basin,berth,fee\nKB,1,10\nKB,2,20\nSecret,8,1\nSecret,9,1\nSecret,9,2\n");
        $this->deliver('target', "basin,berth,fee\nKB,1,10 \nKB,2,25\nSecret,9,1\n");
        $tally = $this->tallies();
        self::assertSame(['tally-done', 'limit-failed', 'new-patterns', 'new-repeats'], array_slice($this->kinds(), 1));
        $letters = $this->letters();
        self::assertCount(1, $letters);
        self::assertStringContainsString($this->analyst->email, $letters[0]);
        self::assertStringContainsString('Keys repeat in tally 2 of Moorings: 2 rows of the source and 1 of the target', $letters[0]);
        $shown = $this->api('GET', '/notices')->assertOk();
        self::assertSame(
            ['new-repeats', 'new-patterns', 'limit-failed'],
            array_column((array) $shown->json('items'), 'kind'),
            'What was chosen not to be shown is not.',
        );
        self::assertStringContainsString('has 1 pattern that tally 1 did not have', (string) $shown->getContent());
        self::assertStringNotContainsString('Secret', Notice::query()->pluck('said')->implode("\n"));

        // Told again by a worker that takes it up: nothing is said twice.
        TellPeopleOfTally::dispatchSync($tally);
        self::assertCount(5, $this->kinds());
    }

    public function test_nobody_is_told_of_what_is_not_theirs(): void
    {
        $this->tallies();
        $stranger = $this->person('Nobody Here');
        $other = Migration::query()->create(['name' => 'Another trust', 'source_label' => 'Old', 'target_label' => 'New']);
        $other->memberships()->create(['user_id' => $stranger->id, 'role' => Role::Analyst]);
        $this->actingAs($stranger)->api('GET', '/notices')->assertExactJson(['items' => []]);
        $this->actingAs($this->owner)->api('GET', '/notices')->assertExactJson(['items' => []]);
        $this->choose(NoticeKind::TallyDone, true, false);
        $this->api('GET', '/notices')->assertJsonCount(1, 'items');
    }

    private function tallies(): int
    {
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();

        return (int) $this->dataset->latestTally()?->id;
    }

    private function choose(NoticeKind $kind, bool $inApplication, bool $byMail): void
    {
        $this->api('PUT', '/me/notice-choices', ['kind' => $kind->value, 'inApplication' => $inApplication, 'byMail' => $byMail])
            ->assertOk()
            ->assertJsonFragment([
                'kind' => $kind->value,
                'words' => $kind->words(),
                'inApplication' => $inApplication,
                'byMail' => $byMail,
            ]);
    }

    /** @return list<string> */
    private function letters(): array
    {
        return array_map(
            static fn(string $path): string => quoted_printable_decode((string) file_get_contents($path)),
            glob(storage_path('mailbox/*')) ?: [],
        );
    }

    /** @return list<string> */
    private function kinds(): array
    {
        return array_values(Notice::query()->orderBy('id')->get()->map(static fn(Notice $notice): string => $notice->kind->value)->all());
    }
}
