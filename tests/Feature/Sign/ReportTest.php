<?php

declare(strict_types=1);

namespace Tests\Feature\Sign;

use App\Adapters\Report\Printer;
use App\Models\Report;
use App\Models\ReportLink;
use Illuminate\Support\Facades\Auth;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Tests\TestCase;

final class ReportTest extends TestCase
{
    public function test_says_what_was_compared_and_accounts_for_every_row(): void
    {
        $tally = $this->tallied();
        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'class',
            'target' => 'missing',
            'decision' => 'defect',
            'reason' => 'ticket 118',
            'seenAct' => 0,
        ]);
        $page = $this->get("/api/v1/tallies/{$tally->id}/report")->assertOk();

        $page->assertSeeTextInOrder([
            '10 of 11 findings in Moorings are still open',
            'old.csv',
            'new.csv',
            hash('sha256', self::OLD),
            hash('sha256', self::NEW),
            'Key',
            'basin + berth',
            'Records read',
            '9',
            'Unaccounted',
            '0',
        ]);
        $page->assertSeeTextInOrder([
            'in the source, not in the target', '1 defect', 'capitals differ', 'Rulings that stand', 'defect',
            'rows: in the source, not in the target', 'ticket 118', 'Ruth Osei', 'Ezekiel Thornøy', 'EZEKIEL THORNØY',
        ]);
        self::assertStringContainsString("default-src 'none'", (string) $page->headers->get('Content-Security-Policy'));
    }

    public function test_what_a_rule_let_pass_is_counted_and_listed(): void
    {
        $this->actingAs($this->analyst);
        $this->deliver('source', self::OLD, 'old.csv');
        $this->deliver('target', self::NEW, 'new.csv');
        $this->match();
        $draft = $this->dataset->draft()->firstOrFail();
        $document = (array) $draft->document;
        data_set($document, 'columnPairs.0.forgives', ['spacing', 'case']);
        $draft->update(['document' => $document]);
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $tally = $this->dataset->latestTally() ?? self::fail('The run has ended without a tally.');

        $answer = $this->api('GET', "/tallies/{$tally->id}")
            ->assertOk()
            ->assertJson([
                'cells' => ['forgiven' => 2, 'changed' => 1],
                'forgiven' => [
                    [
                        'source' => 'holder',
                        'target' => 'owner',
                        'cause' => 'case',
                        'cells' => 1,
                        'examples' => [['source' => 'Ezekiel Thornøy', 'target' => 'EZEKIEL THORNØY']],
                    ],
                    ['cause' => 'spacing', 'sentence' => 'spaces differ', 'cells' => 1],
                ],
            ]);
        self::assertNotContains('case', array_column($this->objects($answer, 'patterns'), 'cause'), 'What is forgiven is no finding.');
        $this->get("/api/v1/tallies/{$tally->id}/report")
            ->assertOk()
            ->assertSeeTextInOrder(['Forgiven by a rule of the plan', 'holder: capitals differ', '1', 'holder: spaces differ']);
    }

    public function test_figures_of_the_deliverer_and_cells_that_steps_altered_stand_in_the_report(): void
    {
        $this->actingAs($this->analyst);
        $part = $this->received('old.csv', "basin,fee\nkb,1\nLM,2\n");
        $this->api('POST', "/datasets/{$this->dataset->id}/deliveries", [
            'side' => 'source',
            'parts' => [['receipt' => $part]],
            'rowsClaimed' => 2,
            'totals' => [['column' => 'fee', 'sum' => '4']],
        ])->assertAccepted();
        $this->deliver('target', "basin,fee\nKB,1\nLM,2.0\n");
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $steps = [
            ['id' => 'a', 'kind' => 'tidy-text', 'columns' => ['basin'], 'actions' => [['action' => 'upper']]],
            [
                'id' => 'b',
                'kind' => 'tidy-text',
                'columns' => ['fee'],
                'actions' => [['action' => 'replace', 'find' => '2', 'with' => '2.0']],
            ],
        ];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('basin')],
            'columnPairs' => [$same('fee')],
            'leftOut' => ['source' => [], 'target' => []],
            'sides' => ['source' => ['preparation' => $steps]],
        ])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $tally = $this->dataset->latestTally() ?? self::fail('The run has ended without a tally.');

        $page = $this->get("/api/v1/tallies/{$tally->id}/report")->assertOk();
        $page->assertSeeTextInOrder([
            'Figures of the deliverer',
            'rows:',
            '2, as was said',
            'sum of fee:',
            '3 arrived, 4 was said; ',
            'not explained',
            'none',
        ]);
        $page->assertSeeTextInOrder(['Cells that steps altered before they were compared', 'fee', '1', '0']);
        $this->api('POST', "/deliveries/{$this->dataset->latestDelivery(\NineTally\Core\Row\Side::Source)?->id}/claims/1/explanations", [
            'explanation' => 'One fee was waived.',
        ])->assertOk();
        $this->get("/api/v1/tallies/{$tally->id}/report")->assertSee('explained by Ruth Osei: One fee was waived.');
    }

    public function test_the_same_tally_and_rulings_give_the_same_bytes(): void
    {
        $tally = $this->tallied();

        self::assertSame(
            $this->get("/api/v1/tallies/{$tally->id}/report")->getContent(),
            $this->get("/api/v1/tallies/{$tally->id}/report")->getContent(),
        );
    }

    public function test_values_of_cells_are_text_and_never_markup(): void
    {
        $tally = $this->tallied(
            "basin,berth,holder,fee\nKB,1,<img src=http://127.0.0.1:1/x><script>alert(1)</script>,1\n",
            "basin,berth,owner,fee,loaded\nKB,1,x,1,t\n",
        );
        $content = (string) $this->get("/api/v1/tallies/{$tally->id}/report")->getContent();

        self::assertStringNotContainsString('<script', $content);
        self::assertStringContainsString('&lt;img src=http://127.0.0.1:1/x&gt;', $content);
    }

    public function test_is_printed_once_and_kept_as_it_was(): void
    {
        $tally = $this->tallied();
        $order = $this->number($this->api('POST', "/tallies/{$tally->id}/report-orders")->assertAccepted(), 'id');
        $this->api('GET', "/report-orders/{$order}")->assertOk()->assertJson(['state' => 'done', 'problem' => null]);
        $report = Report::query()->firstOrFail();
        $pdf = $this->get("/api/v1/reports/{$report->id}/pdf")->assertOk()->assertDownload('moorings-tally-1-report-1.pdf');

        self::assertInstanceOf(BinaryFileResponse::class, $pdf->baseResponse);
        self::assertStringStartsWith('%PDF', (string) file_get_contents($pdf->baseResponse->getFile()->getPathname()));
        self::assertSame($report->pdf_digest, hash_file('sha256', $pdf->baseResponse->getFile()->getPathname()));
    }

    public function test_printing_makes_no_request_but_the_document(): void
    {
        $server = stream_socket_server('tcp://127.0.0.1:0') ?: self::fail('No port is free.');
        stream_set_blocking($server, false);
        $address = stream_socket_get_name($server, false);
        app(Printer::class)->print(
            "<!doctype html><meta http-equiv=\"Content-Security-Policy\" content=\"default-src 'none'\"><img ".
                "src=\"http://{$address}/x\"><iframe src=\"http://{$address}/y\"></iframe><p>Moorings",
        );

        self::assertFalse(@stream_socket_accept($server, 0));
    }

    public function test_a_link_shows_the_report_as_it_stood_until_it_is_over_or_taken_back(): void
    {
        $tally = $this->tallied();
        $path = "/tallies/{$tally->id}/report-links";
        $until = ['lastDay' => now()->addDay()->format('Y-m-d')];
        $this->api('POST', $path, $until)->assertConflict()->assertJson(['code' => 'no-links']);
        $this->migration->memberships()->create(['user_id' => ($manager = $this->person('Ines Varga'))->id, 'role' => 'test-manager']);
        $this->actingAs($manager)->api('PUT', "/migrations/{$this->migration->id}/signing-terms", [
            'limits' => [], 'needsCheck' => true, 'maySignTwice' => false, 'mayAcceptOwn' => false, 'mayLink' => true,
        ])->assertOk();
        $this->actingAs($this->analyst);
        $this->api('POST', $path, ['lastDay' => '2020-01-01'])->assertUnprocessable();
        $made = $this->api('POST', $path, $until)->assertCreated();
        $address = parse_url(is_string($made->json('address')) ? $made->json('address') : '', PHP_URL_PATH);
        self::assertMatchesRegularExpression('~^/shared/[0-9a-z]{26}$~D', (string) $address);
        self::assertSame(0, ReportLink::query()->where('token_hash', 'like', '%'.substr((string) $address, 8).'%')->count());

        Auth::logout();
        $shown = $this->get((string) $address)->assertOk()->assertSee('findings in Moorings are still open');
        self::assertSame(
            ['no-referrer', 'noindex, nofollow'],
            [$shown->headers->get('Referrer-Policy'), $shown->headers->get('X-Robots-Tag')],
        );
        $this->get('/shared/'.str_repeat('0', 26))->assertNotFound();
        $this->actingAs($this->analyst);
        // A ruling makes another report, and the link shows the one that was linked.
        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'class', 'target' => 'missing', 'decision' => 'defect', 'reason' => 'ticket 118', 'seenAct' => 0,
        ])->assertCreated();
        self::assertSame($shown->getContent(), $this->get((string) $address)->getContent());
        self::assertSame(2, $this->api('GET', $path)->json('items.0.openings'));

        $this->travel(2)->days();
        $this->get((string) $address)->assertNotFound();
        $this->travelBack();
        $this->api('DELETE', '/report-links/'.$this->number($made, 'id'))->assertNoContent();
        $this->get((string) $address)->assertNotFound();
    }

    public function test_what_has_to_be_corrected_stands_by_ticket_and_own_words_at_their_places(): void
    {
        $tally = $this->tallied();
        $path = "/tallies/{$tally->id}";
        foreach (
            [['class', 'missing', 'WH-9'], ['class', 'extra', null], ['pattern', '1', 'WH-2']]
            as $seen => [$scope, $target, $ticket]
        ) {
            $this->api('POST', "{$path}/rulings", [
                'scope' => $scope,
                'target' => $target,
                'decision' => 'defect',
                'reason' => "wrong {$target}",
                'ticket' => $ticket,
                'seenAct' => $seen,
            ])->assertCreated();
        }
        foreach (['opening' => 'The move was stopped once.', 'closing' => "Two remarks:\n<b>none</b>"] as $place => $text) {
            $this->api('PUT', "{$path}/report-texts", ['place' => $place, 'text' => $text])->assertOk();
        }
        $this->api('PUT', "{$path}/report-texts", ['place' => 'between', 'text' => 'x'])->assertUnprocessable();

        $this->get("/api/v1{$path}/report")
            ->assertOk()
            ->assertSeeTextInOrder([
                'The move was stopped once.', 'What to know', 'What has to be corrected', 'WH-2', 'wrong 1', 'WH-9', 'wrong missing',
                'none', 'wrong extra', 'Remarks', 'Two remarks:', '<b>none</b>', 'Catalogue of causes', 'Words',
            ]);
        $this->actingAs($this->owner)
            ->api('PUT', "{$path}/report-texts", ['place' => 'opening', 'text' => 'x'])
            ->assertForbidden();
    }
}
