BEGIN TRANSACTION;
CREATE TABLE alembic_version (
	version_num VARCHAR(32) NOT NULL, 
	CONSTRAINT alembic_version_pkc PRIMARY KEY (version_num)
);
INSERT INTO "alembic_version" VALUES('0014');
CREATE TABLE batch (
	made_on DATE NOT NULL, 
	name VARCHAR NOT NULL, 
	water_id INTEGER NOT NULL, 
	"water_ec_uS_cm" DOUBLE NOT NULL, 
	product_id INTEGER, 
	recipe_version_id INTEGER, 
	"volume_L" DOUBLE NOT NULL, 
	"dose_g_L" DOUBLE NOT NULL, 
	"nitrogen_mg_L" DOUBLE NOT NULL, 
	"predicted_uS_cm" DOUBLE NOT NULL, 
	"predicted_low_uS_cm" DOUBLE NOT NULL, 
	"predicted_high_uS_cm" DOUBLE NOT NULL, 
	"measured_uS_cm" DOUBLE, 
	verdict VARCHAR NOT NULL, 
	verdict_sentence VARCHAR NOT NULL, 
	working JSON, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, also JSON DEFAULT '[]' NOT NULL, waters JSON DEFAULT '[]' NOT NULL, route VARCHAR DEFAULT 'root' NOT NULL, "model_added_uS_cm" DOUBLE, "ceiling_uS_cm" DOUBLE, ceiling_of VARCHAR DEFAULT '' NOT NULL, "left_L" DOUBLE, left_on DATE, water_estimated BOOLEAN DEFAULT '0' NOT NULL, 
	CONSTRAINT pk_batch PRIMARY KEY (id), 
	CONSTRAINT ck_batch_volume_positive CHECK (volume_L > 0), 
	CONSTRAINT fk_batch_product_id FOREIGN KEY(product_id) REFERENCES product (id), 
	CONSTRAINT fk_batch_recipe_version_id FOREIGN KEY(recipe_version_id) REFERENCES recipe_version (id), 
	CONSTRAINT fk_batch_water_id FOREIGN KEY(water_id) REFERENCES water (id)
);
INSERT INTO "batch" VALUES('2026-11-10','Feed',1,34.0,1,1,3.0,0.4,50.0,400.0,380.0,420.0,410.0,'','',NULL,1,NULL,'[]','[]','root',NULL,NULL,'',NULL,NULL,0);
CREATE TABLE candidate (
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	name VARCHAR NOT NULL, 
	profile_id VARCHAR NOT NULL, 
	"on" DATE NOT NULL, 
	home JSON NOT NULL, 
	answer JSON NOT NULL, 
	pot_id INTEGER, 
	CONSTRAINT pk_candidate PRIMARY KEY (id), 
	CONSTRAINT fk_candidate_pot_id_pot FOREIGN KEY(pot_id) REFERENCES pot (id)
);
INSERT INTO "candidate" VALUES(1,NULL,'a sundew','drosera_tropical','2026-03-06','{}','{"sentence": "It will live."}',NULL);
CREATE TABLE check_done (
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	pot_id INTEGER NOT NULL, 
	check_id VARCHAR NOT NULL, 
	finding VARCHAR DEFAULT '' NOT NULL, 
	"on" DATE NOT NULL, 
	note VARCHAR DEFAULT '' NOT NULL, 
	CONSTRAINT pk_check_done PRIMARY KEY (id), 
	CONSTRAINT fk_check_done_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id)
);
INSERT INTO "check_done" VALUES(1,NULL,1,'a word','a word','2026-11-20','a word');
CREATE TABLE climate (
	place_id INTEGER NOT NULL, 
	"on" DATE NOT NULL, 
	"night_C" DOUBLE, 
	"day_C" DOUBLE, 
	"medium_C" DOUBLE, 
	humidity_pct DOUBLE, 
	note VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, origin VARCHAR DEFAULT 'typed' NOT NULL, "middle_C" DOUBLE, humidity_low_pct DOUBLE, humidity_high_pct DOUBLE, "deficit_kPa" DOUBLE, hours DOUBLE, hours_dry DOUBLE, 
	CONSTRAINT pk_climate PRIMARY KEY (id), 
	CONSTRAINT fk_climate_place_id FOREIGN KEY(place_id) REFERENCES place (id)
);
INSERT INTO "climate" VALUES(1,'2026-11-01',12.5,12.5,12.5,12.5,'x',1,NULL,'typed',NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "climate" VALUES(1,'2026-10-03',14.5,21.0,NULL,55.0,'',2,NULL,'typed',NULL,NULL,NULL,NULL,NULL,NULL);
CREATE TABLE climate_sample (
	id INTEGER NOT NULL, 
	place_id INTEGER NOT NULL, 
	device VARCHAR NOT NULL, 
	at DATETIME NOT NULL, 
	celsius DOUBLE, 
	humidity_pct DOUBLE, 
	CONSTRAINT pk_climate_sample PRIMARY KEY (id), 
	CONSTRAINT fk_climate_sample_place_id FOREIGN KEY(place_id) REFERENCES place (id)
);
INSERT INTO "climate_sample" VALUES(1,1,'a word','2026-11-20 08:00:00.000000',NULL,NULL);
CREATE TABLE correction (
	id INTEGER NOT NULL, 
	table_name VARCHAR NOT NULL, 
	row_id INTEGER NOT NULL, 
	at DATETIME NOT NULL, 
	"before" JSON NOT NULL, 
	"after" JSON NOT NULL, 
	CONSTRAINT pk_correction PRIMARY KEY (id)
);
INSERT INTO "correction" VALUES(1,'pour',1,'2026-11-12 00:00:00.000000','{"volume_L": 0.2}','{"volume_L": 0.25}');
CREATE TABLE decision (
	pot_id INTEGER, 
	"on" DATE NOT NULL, 
	what VARCHAR NOT NULL, 
	why VARCHAR NOT NULL, 
	look_again_on DATE, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_decision PRIMARY KEY (id), 
	CONSTRAINT fk_decision_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id)
);
INSERT INTO "decision" VALUES(1,'2026-11-12','wait','',NULL,1,NULL);
CREATE TABLE event (
	pot_id INTEGER, 
	place_id INTEGER, 
	"on" DATE NOT NULL, 
	kind VARCHAR NOT NULL, 
	note VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, days INTEGER, errand_id VARCHAR, errand_kind VARCHAR, errand_due_on DATE, details JSON, 
	CONSTRAINT pk_event PRIMARY KEY (id), 
	CONSTRAINT fk_event_place_id FOREIGN KEY(place_id) REFERENCES place (id), 
	CONSTRAINT fk_event_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id)
);
INSERT INTO "event" VALUES(1,NULL,'2026-10-02','repotted','',1,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "event" VALUES(1,NULL,'2026-11-02','errand done','pot-1-end-of-quarantine-2026-11-02',2,NULL,NULL,'pot-1-end-of-quarantine-2026-11-02','end of quarantine','2026-11-02',NULL);
INSERT INTO "event" VALUES(NULL,NULL,'2026-11-02','errand later','water-1-read',3,NULL,7,'water-1-read','water re-test',NULL,NULL);
CREATE TABLE feeding (
	pot_id INTEGER NOT NULL, 
	product_id INTEGER NOT NULL, 
	"on" DATE NOT NULL, 
	amount DOUBLE, 
	unit VARCHAR NOT NULL, 
	note VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_feeding PRIMARY KEY (id), 
	CONSTRAINT fk_feeding_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id), 
	CONSTRAINT fk_feeding_product_id FOREIGN KEY(product_id) REFERENCES product (id)
);
INSERT INTO "feeding" VALUES(1,1,'2026-11-01',NULL,'x','x',1,NULL);
CREATE TABLE feeding_plan (
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	scope VARCHAR NOT NULL, 
	"key" VARCHAR NOT NULL, 
	"plan" JSON NOT NULL, 
	made_on DATE NOT NULL, 
	CONSTRAINT pk_feeding_plan PRIMARY KEY (id)
);
INSERT INTO "feeding_plan" VALUES(1,NULL,'pot','1','{"note": "kept"}','2026-03-01');
CREATE TABLE feel (
	pot_id INTEGER NOT NULL, 
	"on" DATE NOT NULL, 
	probe_id INTEGER, 
	probe_value DOUBLE, 
	moist VARCHAR, 
	roots VARCHAR, 
	droops BOOLEAN, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, wall VARCHAR, heft VARCHAR, 
	CONSTRAINT pk_feel PRIMARY KEY (id), 
	CONSTRAINT fk_feel_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id), 
	CONSTRAINT fk_feel_probe_id FOREIGN KEY(probe_id) REFERENCES probe (id)
);
INSERT INTO "feel" VALUES(1,'2026-11-01',1,12.5,'x','x',1,1,NULL,NULL,NULL);
CREATE TABLE finding (
	water_id INTEGER NOT NULL, 
	reading_id INTEGER, 
	report_id INTEGER, 
	"on" DATE NOT NULL, 
	quantity VARCHAR NOT NULL, 
	low DOUBLE NOT NULL, 
	high DOUBLE NOT NULL, 
	typed VARCHAR NOT NULL, 
	unit VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_finding PRIMARY KEY (id), 
	CONSTRAINT fk_finding_reading_id FOREIGN KEY(reading_id) REFERENCES reading (id), 
	CONSTRAINT fk_finding_report_id FOREIGN KEY(report_id) REFERENCES report (id), 
	CONSTRAINT fk_finding_water_id FOREIGN KEY(water_id) REFERENCES water (id)
);
INSERT INTO "finding" VALUES(1,NULL,1,'2026-06-01','Ca',4.0,4.0,'4','mg/L',1,NULL);
CREATE TABLE flush (
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	pot_id INTEGER NOT NULL, 
	water_id INTEGER NOT NULL, 
	"on" DATE NOT NULL, 
	started_at DATETIME NOT NULL, 
	way VARCHAR NOT NULL, 
	"target_uS_cm" DOUBLE NOT NULL, 
	"stop_runoff_uS_cm" DOUBLE NOT NULL, 
	"water_uS_cm" DOUBLE NOT NULL, 
	"root_zone_uS_cm" DOUBLE NOT NULL, 
	"first_runoff_uS_cm" DOUBLE NOT NULL, 
	"slope_per_L" DOUBLE NOT NULL, 
	"round_L" DOUBLE NOT NULL, 
	pause_min DOUBLE NOT NULL, 
	"refill_L" DOUBLE NOT NULL, 
	"before_uS_cm" DOUBLE, 
	"after_uS_cm" DOUBLE, 
	ended_at DATETIME, 
	ended_as VARCHAR DEFAULT '' NOT NULL, 
	tray_emptied BOOLEAN, 
	runoff_went VARCHAR DEFAULT '' NOT NULL, 
	feed_on DATE, 
	look_on DATE, 
	note VARCHAR DEFAULT '' NOT NULL, 
	"by" VARCHAR DEFAULT '' NOT NULL, 
	CONSTRAINT pk_flush PRIMARY KEY (id), 
	CONSTRAINT fk_flush_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id), 
	CONSTRAINT fk_flush_water_id FOREIGN KEY(water_id) REFERENCES water (id)
);
INSERT INTO "flush" VALUES(1,NULL,1,1,'2026-11-10','2026-11-10 09:00:00.000000','rounds',450.0,400.0,20.0,1200.0,1100.0,1.9,0.3,20.0,0.05,1150.0,420.0,'2026-11-10 10:05:00.000000','reached',1,'lawn or bed','2026-11-17','2026-12-01','crust scraped','');
INSERT INTO "flush" VALUES(2,NULL,1,1,'2026-11-20','2026-11-20 09:00:00.000000','rounds',450.0,400.0,20.0,1200.0,1100.0,1.9,0.3,20.0,0.05,NULL,NULL,NULL,'',NULL,'',NULL,NULL,'','');
CREATE TABLE growth (
	plant_id INTEGER NOT NULL, 
	name VARCHAR NOT NULL, 
	leads BOOLEAN NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_growth PRIMARY KEY (id), 
	CONSTRAINT fk_growth_plant_id FOREIGN KEY(plant_id) REFERENCES plant (id)
);
INSERT INTO "growth" VALUES(1,'',1,1,NULL);
CREATE TABLE hold_override (
	pot_id INTEGER NOT NULL, 
	hold_id VARCHAR NOT NULL, 
	"on" DATE NOT NULL, 
	word VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_hold_override PRIMARY KEY (id), 
	CONSTRAINT fk_hold_override_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id)
);
INSERT INTO "hold_override" VALUES(1,'x','2026-11-01','x',1,NULL);
CREATE TABLE ill_case (
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	pot_id INTEGER NOT NULL, 
	plant_id INTEGER NOT NULL, 
	opened_on DATE NOT NULL, 
	reading VARCHAR DEFAULT '' NOT NULL, 
	school VARCHAR DEFAULT '' NOT NULL, 
	note VARCHAR DEFAULT '' NOT NULL, 
	closed_on DATE, 
	cause VARCHAR DEFAULT '' NOT NULL, 
	signs JSON DEFAULT '[]' NOT NULL, 
	counts BOOLEAN DEFAULT '1' NOT NULL, 
	CONSTRAINT pk_ill_case PRIMARY KEY (id), 
	CONSTRAINT fk_ill_case_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id), 
	CONSTRAINT fk_ill_case_plant_id FOREIGN KEY(plant_id) REFERENCES plant (id)
);
INSERT INTO "ill_case" VALUES(1,NULL,1,1,'2026-11-20','a word','a word','a word',NULL,'a word','[]',1);
CREATE TABLE inbox_entry (
	digest VARCHAR NOT NULL, 
	device VARCHAR NOT NULL, 
	at DATETIME NOT NULL, 
	"ec_uS_cm" DOUBLE, 
	"temperature_C" DOUBLE, 
	"pH" DOUBLE, 
	reading_id INTEGER, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, humidity_pct DOUBLE, 
	CONSTRAINT pk_inbox_entry PRIMARY KEY (id), 
	CONSTRAINT fk_inbox_entry_reading_id FOREIGN KEY(reading_id) REFERENCES reading (id), 
	CONSTRAINT uq_inbox_entry_digest UNIQUE (digest)
);
INSERT INTO "inbox_entry" VALUES('d1','pen-1','2026-11-02 08:00:00.000000',41.0,NULL,NULL,NULL,1,NULL,NULL);
CREATE TABLE leaf (
	growth_id INTEGER NOT NULL, 
	organ VARCHAR NOT NULL, 
	opened_on DATE NOT NULL, 
	opened_precision VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, number INTEGER, lost_on DATE, lost_precision VARCHAR DEFAULT 'day' NOT NULL, lost_why VARCHAR DEFAULT '' NOT NULL, note VARCHAR DEFAULT '' NOT NULL, 
	CONSTRAINT pk_leaf PRIMARY KEY (id), 
	CONSTRAINT fk_leaf_growth_id FOREIGN KEY(growth_id) REFERENCES growth (id)
);
INSERT INTO "leaf" VALUES(1,'leaf','2026-10-01','day',1,NULL,1,NULL,'day','','');
CREATE TABLE leaf_length (
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	leaf_id INTEGER NOT NULL, 
	photo_id INTEGER, 
	"on" DATE NOT NULL, 
	mm DOUBLE NOT NULL, 
	low_mm DOUBLE, 
	high_mm DOUBLE, 
	growing BOOLEAN, 
	origin VARCHAR DEFAULT 'ruler' NOT NULL, 
	working JSON, 
	points JSON, 
	CONSTRAINT pk_leaf_length PRIMARY KEY (id), 
	CONSTRAINT fk_leaf_length_leaf_id FOREIGN KEY(leaf_id) REFERENCES leaf (id), 
	CONSTRAINT fk_leaf_length_photo_id FOREIGN KEY(photo_id) REFERENCES photo (id)
);
INSERT INTO "leaf_length" VALUES(1,NULL,1,1,'2026-10-01',151.5,148.0,155.0,NULL,'photo',NULL,NULL);
CREATE TABLE level (
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	pot_id INTEGER NOT NULL, 
	"on" DATE NOT NULL, 
	did VARCHAR NOT NULL, 
	litres DOUBLE, 
	note VARCHAR DEFAULT '' NOT NULL, 
	CONSTRAINT pk_level PRIMARY KEY (id), 
	CONSTRAINT fk_level_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id)
);
INSERT INTO "level" VALUES(1,NULL,1,'2026-11-18','read',0.2,'');
CREATE TABLE logger (
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	device VARCHAR NOT NULL, 
	place_id INTEGER NOT NULL, 
	bound_on DATE NOT NULL, 
	CONSTRAINT pk_logger PRIMARY KEY (id), 
	CONSTRAINT fk_logger_place_id FOREIGN KEY(place_id) REFERENCES place (id)
);
INSERT INTO "logger" VALUES(1,NULL,'a word',1,'2026-11-20');
CREATE TABLE "look" (
	pot_id INTEGER NOT NULL, 
	plant_id INTEGER NOT NULL, 
	leaf_id INTEGER, 
	"on" DATE NOT NULL, 
	leaves_count INTEGER, 
	newest_leaf_mm DOUBLE, 
	new_leaf BOOLEAN NOT NULL, 
	marks JSON NOT NULL, 
	marks_looked_for BOOLEAN NOT NULL, 
	unknown JSON NOT NULL, 
	note VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	new_growth BOOLEAN DEFAULT '0' NOT NULL, 
	growth_stopped BOOLEAN DEFAULT '0' NOT NULL, 
	spike BOOLEAN DEFAULT '0' NOT NULL, 
	root_cm DOUBLE, 
	roots_working BOOLEAN, 
	growth_id INTEGER, 
	growth_cm DOUBLE, 
	roots_cm JSON, leaf_growing BOOLEAN, gained INTEGER, lost INTEGER, lost_why VARCHAR DEFAULT '' NOT NULL, posture INTEGER, hour INTEGER, pests INTEGER, surface VARCHAR DEFAULT '' NOT NULL, as_last BOOLEAN DEFAULT '0' NOT NULL, "by" VARCHAR DEFAULT '' NOT NULL, 
	CONSTRAINT pk_look PRIMARY KEY (id), 
	CONSTRAINT fk_look_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id), 
	CONSTRAINT fk_look_plant_id FOREIGN KEY(plant_id) REFERENCES plant (id), 
	CONSTRAINT fk_look_leaf_id FOREIGN KEY(leaf_id) REFERENCES leaf (id), 
	CONSTRAINT fk_look_growth_id_growth FOREIGN KEY(growth_id) REFERENCES growth (id)
);
INSERT INTO "look" VALUES(1,1,1,'2026-11-12',NULL,120.0,0,'[]',1,'[]','',1,NULL,0,0,0,NULL,NULL,NULL,NULL,NULL,1,NULL,NULL,'',NULL,NULL,NULL,'',0,'');
INSERT INTO "look" VALUES(1,1,NULL,'2026-11-12',NULL,NULL,0,'["tip", "spot"]',1,'[]','',2,NULL,0,0,0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,'',NULL,NULL,NULL,'',0,'');
INSERT INTO "look" VALUES(1,1,NULL,'2026-11-12',NULL,NULL,0,'["rot"]',1,'[]','',3,'2026-10-20 10:00:00',0,0,0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,'',NULL,NULL,NULL,'',0,'');
CREATE TABLE mark (
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	look_id INTEGER NOT NULL, 
	leaf_id INTEGER, 
	kind VARCHAR NOT NULL, 
	place VARCHAR DEFAULT 'unknown' NOT NULL, 
	texture VARCHAR DEFAULT '' NOT NULL, 
	mm DOUBLE, 
	share_pct DOUBLE, 
	since DATE, 
	since_precision VARCHAR DEFAULT 'day' NOT NULL, 
	old BOOLEAN DEFAULT '0' NOT NULL, 
	cause VARCHAR DEFAULT '' NOT NULL, 
	photo_id INTEGER, 
	outline JSON, 
	CONSTRAINT pk_mark PRIMARY KEY (id), 
	CONSTRAINT fk_mark_look_id FOREIGN KEY(look_id) REFERENCES look (id), 
	CONSTRAINT fk_mark_leaf_id FOREIGN KEY(leaf_id) REFERENCES leaf (id), 
	CONSTRAINT fk_mark_photo_id FOREIGN KEY(photo_id) REFERENCES photo (id)
);
INSERT INTO "mark" VALUES(1,NULL,2,NULL,'tip','tip','',NULL,NULL,NULL,'day',0,'',NULL,NULL);
INSERT INTO "mark" VALUES(2,NULL,2,NULL,'spot','unknown','',NULL,NULL,NULL,'day',0,'',NULL,NULL);
INSERT INTO "mark" VALUES(3,'2026-10-20 10:00:00',3,NULL,'rot','unknown','',NULL,NULL,NULL,'day',0,'',NULL,NULL);
INSERT INTO "mark" VALUES(4,NULL,1,1,'tip','tip','crisp',4.0,NULL,NULL,'day',0,'',NULL,NULL);
CREATE TABLE measure (
	name VARCHAR NOT NULL, 
	kind VARCHAR NOT NULL, 
	product_id INTEGER, 
	"on" DATE NOT NULL, 
	weighings JSON NOT NULL, 
	"volume_mL" DOUBLE, 
	"each" DOUBLE NOT NULL, 
	unit VARCHAR NOT NULL, 
	cv DOUBLE NOT NULL, 
	mean_error_pct DOUBLE NOT NULL, 
	working JSON, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_measure PRIMARY KEY (id), 
	CONSTRAINT fk_measure_product_id FOREIGN KEY(product_id) REFERENCES product (id)
);
INSERT INTO "measure" VALUES('x','x',1,'2026-11-01','{}',NULL,'x','x','x','x',NULL,1,NULL);
CREATE TABLE membrane_pair (
	water_id INTEGER NOT NULL, 
	"on" DATE NOT NULL, 
	"feed_uS_cm" DOUBLE NOT NULL, 
	"permeate_uS_cm" DOUBLE NOT NULL, 
	"permeate_L" DOUBLE, 
	"concentrate_L" DOUBLE, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_membrane_pair PRIMARY KEY (id), 
	CONSTRAINT fk_membrane_pair_water_id FOREIGN KEY(water_id) REFERENCES water (id)
);
INSERT INTO "membrane_pair" VALUES(1,'2026-06-03',420.0,18.0,NULL,NULL,1,NULL);
CREATE TABLE meter (
	name VARCHAR NOT NULL, 
	unit VARCHAR NOT NULL, 
	scale VARCHAR, 
	compensates BOOLEAN NOT NULL, 
	accuracy_pct_fs DOUBLE, 
	"range_uS_cm" DOUBLE, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, compensation VARCHAR DEFAULT 'linear' NOT NULL, "alpha_per_C" DOUBLE DEFAULT '0.02' NOT NULL, "resolution_uS_cm" DOUBLE DEFAULT '1.0' NOT NULL, device VARCHAR, check_days DOUBLE, 
	CONSTRAINT pk_meter PRIMARY KEY (id)
);
INSERT INTO "meter" VALUES('Pen 1','µS/cm',NULL,1,1.0,2000.0,1,NULL,'linear',0.02,1.0,NULL,NULL);
INSERT INTO "meter" VALUES('Pen at the bench','µS/cm',NULL,1,NULL,NULL,2,NULL,'linear',0.02,1.0,'pen-1',NULL);
CREATE TABLE meter_check (
	meter_id INTEGER NOT NULL, 
	"on" DATE NOT NULL, 
	standard_name VARCHAR NOT NULL, 
	"standard_uS_cm" DOUBLE NOT NULL, 
	"temperature_C" DOUBLE, 
	shown DOUBLE NOT NULL, 
	unit VARCHAR NOT NULL, 
	"shown_uS_cm" DOUBLE NOT NULL, 
	adjusted BOOLEAN NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_meter_check PRIMARY KEY (id), 
	CONSTRAINT fk_meter_check_meter_id FOREIGN KEY(meter_id) REFERENCES meter (id)
);
INSERT INTO "meter_check" VALUES(2,'2026-11-01','1413',1413.0,24.0,1398.0,'µS/cm',1398.0,0,1,NULL);
CREATE TABLE organ (
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	look_id INTEGER NOT NULL, 
	organ VARCHAR NOT NULL, 
	told VARCHAR DEFAULT 'seen' NOT NULL, 
	count DOUBLE, 
	"of" DOUBLE, 
	mm DOUBLE, 
	percent DOUBLE, 
	lost DOUBLE, 
	words JSON, 
	CONSTRAINT pk_organ PRIMARY KEY (id), 
	CONSTRAINT fk_organ_look_id FOREIGN KEY(look_id) REFERENCES look (id)
);
INSERT INTO "organ" VALUES(1,NULL,1,'root tips','seen',3.0,5.0,NULL,NULL,NULL,NULL);
CREATE TABLE person (
	name VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_person PRIMARY KEY (id)
);
INSERT INTO "person" VALUES('x',1,NULL);
CREATE TABLE phase_span (
	growth_id INTEGER NOT NULL, 
	phase VARCHAR NOT NULL, 
	since DATE NOT NULL, 
	note VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_phase_span PRIMARY KEY (id), 
	CONSTRAINT fk_phase_span_growth_id FOREIGN KEY(growth_id) REFERENCES growth (id)
);
INSERT INTO "phase_span" VALUES(1,'active','2026-11-23','',1,NULL);
INSERT INTO "phase_span" VALUES(1,'active','2026-09-01','',2,NULL);
CREATE TABLE photo (
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	pot_id INTEGER NOT NULL, 
	plant_id INTEGER NOT NULL, 
	look_id INTEGER, 
	"on" DATE NOT NULL, 
	sha256 VARCHAR NOT NULL, 
	media VARCHAR NOT NULL, 
	width_px INTEGER NOT NULL, 
	height_px INTEGER NOT NULL, 
	bytes INTEGER NOT NULL, 
	scale JSON, 
	note VARCHAR DEFAULT '' NOT NULL, 
	CONSTRAINT pk_photo PRIMARY KEY (id), 
	CONSTRAINT fk_photo_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id), 
	CONSTRAINT fk_photo_plant_id FOREIGN KEY(plant_id) REFERENCES plant (id), 
	CONSTRAINT fk_photo_look_id FOREIGN KEY(look_id) REFERENCES look (id)
);
INSERT INTO "photo" VALUES(1,NULL,1,1,1,'2026-10-01','aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa','image/jpeg',100,80,1234,NULL,'');
CREATE TABLE place (
	name VARCHAR NOT NULL, 
	hemisphere VARCHAR NOT NULL, 
	indoors BOOLEAN NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, latitude_deg DOUBLE, lamp_hours DOUBLE, lamp_dli DOUBLE, on_display BOOLEAN DEFAULT '0' NOT NULL, lamps_off VARCHAR DEFAULT '' NOT NULL, 
	CONSTRAINT pk_place PRIMARY KEY (id)
);
INSERT INTO "place" VALUES('Home','north',1,1,NULL,NULL,NULL,NULL,0,'');
CREATE TABLE plant (
	pot_id INTEGER NOT NULL, 
	label VARCHAR NOT NULL, 
	profile_id VARCHAR NOT NULL, 
	source VARCHAR NOT NULL, 
	arrived_on DATE, 
	parent_plant_id INTEGER, 
	parent_relation VARCHAR NOT NULL, 
	died_on DATE, 
	death_cause VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, count INTEGER DEFAULT '1' NOT NULL, phase_school VARCHAR DEFAULT '' NOT NULL, trial VARCHAR DEFAULT '' NOT NULL, ramp JSON, 
	CONSTRAINT pk_plant PRIMARY KEY (id), 
	CONSTRAINT fk_plant_parent_plant_id FOREIGN KEY(parent_plant_id) REFERENCES plant (id), 
	CONSTRAINT fk_plant_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id)
);
INSERT INTO "plant" VALUES(1,'','paphiopedilum','',NULL,NULL,'',NULL,'',1,NULL,1,'','',NULL);
CREATE TABLE "pot" (
	code VARCHAR NOT NULL, 
	name VARCHAR NOT NULL, 
	place_id INTEGER NOT NULL, 
	spot VARCHAR NOT NULL, 
	shelf_order INTEGER NOT NULL, 
	isolated BOOLEAN NOT NULL, 
	medium_id VARCHAR NOT NULL, 
	medium_since DATE, 
	medium_charged BOOLEAN, 
	repotted_on DATE, 
	"volume_L" DOUBLE NOT NULL, 
	drainage VARCHAR NOT NULL, 
	"tray_L" DOUBLE, 
	route VARCHAR NOT NULL, 
	interval_days DOUBLE NOT NULL, 
	plain_every INTEGER NOT NULL, 
	"usual_volume_L" DOUBLE, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	interval_by VARCHAR DEFAULT 'set' NOT NULL, 
	school_id VARCHAR, 
	ready_by VARCHAR DEFAULT 'days' NOT NULL, 
	ready_at DOUBLE, 
	probe_id INTEGER, 
	medium_parts JSON, 
	top_cm DOUBLE, 
	height_cm DOUBLE, 
	isolated_since DATE, 
	tags JSON DEFAULT '[]' NOT NULL, 
	entered_on DATE, 
	watered_on DATE, 
	fed_on DATE, 
	crown VARCHAR DEFAULT '' NOT NULL, 
	signs JSON DEFAULT '[]' NOT NULL, 
	signs_least INTEGER DEFAULT '2' NOT NULL, 
	check_most_days DOUBLE, 
	soak_min DOUBLE, 
	stand_min DOUBLE, 
	filled VARCHAR DEFAULT '' NOT NULL, 
	water_id INTEGER, medium_limed BOOLEAN, 
	CONSTRAINT pk_pot PRIMARY KEY (id), 
	CONSTRAINT fk_pot_place_id FOREIGN KEY(place_id) REFERENCES place (id), 
	CONSTRAINT ck_pot_volume_positive CHECK (volume_L > 0), 
	CONSTRAINT fk_pot_probe_id FOREIGN KEY(probe_id) REFERENCES probe (id), 
	CONSTRAINT fk_pot_water_id_water FOREIGN KEY(water_id) REFERENCES water (id)
);
INSERT INTO "pot" VALUES('P-01','',1,'',0,0,'bark_mix',NULL,NULL,NULL,0.9,'drains',NULL,'top',6.0,4,NULL,1,NULL,'set',NULL,'days',NULL,NULL,NULL,NULL,NULL,NULL,'[]','2026-11-01','2026-10-30',NULL,'','[]',2,NULL,NULL,NULL,'',NULL,1);
CREATE TABLE pot_standing (
	pot_id INTEGER NOT NULL, 
	"on" DATE NOT NULL, 
	steps INTEGER NOT NULL, 
	figures VARCHAR NOT NULL, 
	data JSON NOT NULL, 
	CONSTRAINT pk_pot_standing PRIMARY KEY (pot_id, "on"), 
	CONSTRAINT fk_pot_standing_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id)
);
INSERT INTO "pot_standing" VALUES(1,'2026-11-01',12,'none','{}');
CREATE TABLE pot_summary (
	pot_id INTEGER NOT NULL, 
	core_version VARCHAR NOT NULL, 
	data JSON NOT NULL, 
	history JSON NOT NULL, mix VARCHAR DEFAULT '' NOT NULL, learnt JSON, 
	CONSTRAINT pk_pot_summary PRIMARY KEY (pot_id), 
	CONSTRAINT fk_pot_summary_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id)
);
INSERT INTO "pot_summary" VALUES(1,'0.1.0/1','{"as_of": "2026-11-22", "state": [[0.16335, 0.16335, 0.16335, 0.16335, 0.16335, 0.16335, 0.16335000000000002, 0.18978562354966508, 0.14059664794903326, 0.16335, 0.16335, 0.16335, 0.16335], [78.71477381686995, 72.02169388400418, 84.23182867318124, 72.03049353447207, 85.78323199207313, 78.71477381686995, 105.2935933408268, 96.2110739963888, 72.51461188732816, 78.71477381686995, 78.71477381686995, 95.52475599055245, 67.81487373039339], [666.4744928017831, 655.9158837615903, 675.3562946407978, 571.9277374347786, 766.4553071420669, 666.4744928017831, 662.6216755024526, 675.2355325035471, 658.2792246090052, 666.4744928017831, 666.4744928017831, 904.2456820925958, 512.2993021361996]], "last_pour_on": "2026-11-22", "last_pour_mL": 250.0, "last_pour_ec": 34.0, "last_flush_on": null, "last_feed_on": "2026-11-10", "feeds_since_plain": 0, "usual_volume_L": 0.3, "last_look_on": "2026-11-12", "leaves_count": null, "newest_leaf_mm": 120.0, "marks": [], "crust_on": null, "new_leaf_on": null, "last_equivalent": 242.92481537244876, "last_equivalent_on": "2026-11-10", "phase": "active", "phase_since": "2026-11-23"}','{"points": [["2026-11-10", 239.94513093007, 148.7812473965199, 396.00286508309955], ["2026-11-22", 170.30931321765186, 97.64472283459214, 305.0755204481551], ["2026-11-22", 173.65797970339048, 101.66504305071783, 303.2733108549534]], "observations": [["2026-11-10", 500.0, 242.92481537244876, 491.4792859323085]], "cautions": ["What the medium held at the start is not known: the first water is taken, \u00b150 %."], "used": 2}','',NULL);
CREATE TABLE "pour" (
	pot_id INTEGER NOT NULL, 
	batch_id INTEGER, 
	water_id INTEGER, 
	"on" DATE NOT NULL, 
	job VARCHAR NOT NULL, 
	route VARCHAR NOT NULL, 
	"volume_L" DOUBLE, 
	"ec_uS_cm" DOUBLE, 
	note VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	"by" VARCHAR DEFAULT ('') NOT NULL, 
	felt VARCHAR DEFAULT ('') NOT NULL, 
	ec_estimated BOOLEAN DEFAULT '0' NOT NULL, 
	gave VARCHAR DEFAULT ('') NOT NULL, 
	plant_id INTEGER, 
	flush_id INTEGER, 
	soaked_min DOUBLE, 
	minute DOUBLE, 
	CONSTRAINT pk_pour PRIMARY KEY (id), 
	CONSTRAINT fk_pour_plant_id_plant FOREIGN KEY(plant_id) REFERENCES plant (id), 
	CONSTRAINT fk_pour_water_id FOREIGN KEY(water_id) REFERENCES water (id), 
	CONSTRAINT fk_pour_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id), 
	CONSTRAINT fk_pour_batch_id FOREIGN KEY(batch_id) REFERENCES batch (id), 
	CONSTRAINT fk_pour_flush_id FOREIGN KEY(flush_id) REFERENCES flush (id)
);
INSERT INTO "pour" VALUES(1,NULL,1,'2026-11-22','plain','top',0.25,34.0,'',1,NULL,'','',0,'',NULL,1,0.0,0.0);
INSERT INTO "pour" VALUES(1,1,NULL,'2026-11-10','feed','top',0.3,410.0,'',2,NULL,'','',1,'',NULL,NULL,NULL,NULL);
CREATE TABLE probe (
	name VARCHAR NOT NULL, 
	lowest DOUBLE NOT NULL, 
	highest DOUBLE NOT NULL, 
	dry_end VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_probe PRIMARY KEY (id)
);
INSERT INTO "probe" VALUES('x',12.5,12.5,'x',1,NULL);
CREATE TABLE product (
	library_id VARCHAR, 
	name VARCHAR NOT NULL, 
	label JSON NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, price DOUBLE, pack_amount DOUBLE, opened_on DATE, left_amount DOUBLE, left_on DATE, owned BOOLEAN DEFAULT '0' NOT NULL, 
	CONSTRAINT pk_product PRIMARY KEY (id)
);
INSERT INTO "product" VALUES('balanced_13_3_15_ca_mg','Nitrate feed 13-3-15 with Ca and Mg','{"name": "Nitrate feed 13-3-15 with Ca and Mg", "form": "powder", "basis": "w/w", "density_g_mL": null, "n_total_pct": null, "n_nitrate_pct": 11.6, "n_ammonium_pct": 1.4, "n_urea_pct": null, "p_pct": 3.0, "k_pct": 15.0, "pk_as": "oxide", "ca_pct": 8.0, "mg_pct": 2.0, "s_pct": null, "cl_pct": null, "na_pct": null, "label_rate": 1.0, "label_rate_unit": "g/L", "solubility_g_L": 300.0}',1,NULL,NULL,NULL,NULL,NULL,NULL,1);
INSERT INTO "product" VALUES('calcium_nitrate_tetrahydrate','Calcium nitrate, tetrahydrate','{"name": "Calcium nitrate, tetrahydrate", "form": "powder", "basis": "w/w", "density_g_mL": null, "n_total_pct": null, "n_nitrate_pct": 11.86, "n_ammonium_pct": null, "n_urea_pct": null, "p_pct": null, "k_pct": null, "pk_as": "oxide", "ca_pct": 16.97, "mg_pct": null, "s_pct": null, "cl_pct": null, "na_pct": null, "label_rate": null, "label_rate_unit": null, "solubility_g_L": 1200.0}',2,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "product" VALUES('foliage_20_8_16_urea','Foliage feed 20-8.7-16.6, urea-rich','{"name": "Foliage feed 20-8.7-16.6, urea-rich", "form": "powder", "basis": "w/w", "density_g_mL": null, "n_total_pct": null, "n_nitrate_pct": 5.0, "n_ammonium_pct": 4.5, "n_urea_pct": 10.5, "p_pct": 8.7, "k_pct": 16.6, "pk_as": "oxide", "ca_pct": null, "mg_pct": 0.5, "s_pct": null, "cl_pct": null, "na_pct": null, "label_rate": 1.5, "label_rate_unit": "g/L", "solubility_g_L": 250.0}',3,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "product" VALUES('liquid_6_2_5','Liquid orchid feed 6-2-5','{"name": "Liquid orchid feed 6-2-5", "form": "liquid", "basis": "w/w", "density_g_mL": 1.21, "n_total_pct": null, "n_nitrate_pct": 4.2, "n_ammonium_pct": 1.8, "n_urea_pct": null, "p_pct": 2.0, "k_pct": 5.0, "pk_as": "oxide", "ca_pct": 1.0, "mg_pct": 0.4, "s_pct": null, "cl_pct": null, "na_pct": null, "label_rate": 2.0, "label_rate_unit": "mL/L", "solubility_g_L": null}',4,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "product" VALUES('magnesium_sulfate_heptahydrate','Magnesium sulfate, heptahydrate','{"name": "Magnesium sulfate, heptahydrate", "form": "powder", "basis": "w/w", "density_g_mL": null, "n_total_pct": null, "n_nitrate_pct": null, "n_ammonium_pct": null, "n_urea_pct": null, "p_pct": null, "k_pct": null, "pk_as": "oxide", "ca_pct": null, "mg_pct": 9.86, "s_pct": 13.01, "cl_pct": null, "na_pct": null, "label_rate": null, "label_rate_unit": null, "solubility_g_L": 700.0}',5,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "product" VALUES('potassium_nitrate','Potassium nitrate','{"name": "Potassium nitrate", "form": "powder", "basis": "w/w", "density_g_mL": null, "n_total_pct": null, "n_nitrate_pct": 13.85, "n_ammonium_pct": null, "n_urea_pct": null, "p_pct": null, "k_pct": 38.67, "pk_as": "element", "ca_pct": null, "mg_pct": null, "s_pct": null, "cl_pct": null, "na_pct": null, "label_rate": null, "label_rate_unit": null, "solubility_g_L": 310.0}',6,NULL,NULL,NULL,NULL,NULL,NULL,0);
CREATE TABLE profile_copy (
	profile_id VARCHAR NOT NULL, 
	plant_id INTEGER, 
	figures JSON NOT NULL, 
	word VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_profile_copy PRIMARY KEY (id), 
	CONSTRAINT fk_profile_copy_plant_id FOREIGN KEY(plant_id) REFERENCES plant (id)
);
INSERT INTO "profile_copy" VALUES('x',1,'{}','x',1,NULL);
CREATE TABLE rating (
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	photo_id INTEGER NOT NULL, 
	"on" DATE NOT NULL, 
	"by" VARCHAR DEFAULT '' NOT NULL, 
	score INTEGER NOT NULL, 
	CONSTRAINT pk_rating PRIMARY KEY (id), 
	CONSTRAINT fk_rating_photo_id FOREIGN KEY(photo_id) REFERENCES photo (id)
);
INSERT INTO "rating" VALUES(1,NULL,1,'2026-10-02','Ada',7);
CREATE TABLE "reading" (
	water_id INTEGER, 
	batch_id INTEGER, 
	meter_id INTEGER, 
	"on" DATE NOT NULL, 
	on_precision VARCHAR NOT NULL, 
	value DOUBLE, 
	unit VARCHAR NOT NULL, 
	scale VARCHAR, 
	"temperature_C" DOUBLE, 
	compensated BOOLEAN NOT NULL, 
	"ec25_uS_cm" DOUBLE, 
	"half_width_uS_cm" DOUBLE, 
	refusal VARCHAR NOT NULL, 
	working JSON, 
	note VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	origin VARCHAR DEFAULT 'typed' NOT NULL, 
	trace JSON, check_overdue BOOLEAN DEFAULT '0' NOT NULL, 
	CONSTRAINT pk_reading PRIMARY KEY (id), 
	CONSTRAINT fk_reading_batch_id FOREIGN KEY(batch_id) REFERENCES batch (id), 
	CONSTRAINT fk_reading_meter_id FOREIGN KEY(meter_id) REFERENCES meter (id), 
	CONSTRAINT fk_reading_water_id FOREIGN KEY(water_id) REFERENCES water (id)
);
INSERT INTO "reading" VALUES(1,NULL,1,'2026-11-20','day',34.0,'µS/cm',NULL,NULL,1,34.0,1.68000000000000015987e+00,'','{"title": "Conductivity at 25 \u00b0C", "inputs": [{"symbol": "shown", "label": "reading", "value": 34.0, "unit": "\u00b5S/cm", "origin": "entered"}, {"symbol": "unit", "label": "\u00b5S/cm in 1 \u00b5S/cm", "value": 1.0, "unit": "\u00b5S/cm", "origin": "definition"}], "steps": [{"symbol": "EC_T", "label": "conductivity as shown", "formula": "shown * unit", "value": 34.0, "unit": "\u00b5S/cm"}, {"symbol": "EC25", "label": "conductivity at 25 \u00b0C", "formula": "EC_T", "value": 34.0, "unit": "\u00b5S/cm"}, {"symbol": "U", "label": "half-width of a usual pen", "formula": "0.02 * EC25 + 1", "value": 1.6800000000000002, "unit": "\u00b5S/cm"}], "assumptions": ["The meter compensates to 25 \u00b0C itself; its reading is taken as it is.", "The meter states no accuracy: a usual pen''s 2 % and 1 \u00b5S/cm are taken."], "cautions": [], "validity": "Linear form good to about 3 % from 5 to 35 \u00b0C; nothing is corrected twice.", "sources": ["sm-2510", "iso-7888"], "formula_id": "water.temperature.ec_at_25"}','',1,NULL,'typed',NULL,0);
INSERT INTO "reading" VALUES(2,NULL,NULL,'2026-11-20','day',310.0,'ppm','unknown',NULL,1,NULL,NULL,'Scale of the ppm reading is not known: 310 ppm is 620 µS/cm on the 0.5 scale, 484 µS/cm on the 0.64 scale, 443 µS/cm on the 0.7 scale. Find the scale in the meter''s leaflet, or read a known standard; until then nothing is computed from it.',NULL,'',2,NULL,'typed',NULL,0);
CREATE TABLE recipe (
	name VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, note VARCHAR DEFAULT '' NOT NULL, 
	CONSTRAINT pk_recipe PRIMARY KEY (id)
);
INSERT INTO "recipe" VALUES('Nitrate feed',1,NULL,'');
CREATE TABLE recipe_version (
	id INTEGER NOT NULL, 
	recipe_id INTEGER NOT NULL, 
	version INTEGER NOT NULL, 
	made_on DATE NOT NULL, 
	product_id INTEGER NOT NULL, 
	label JSON NOT NULL, 
	strength VARCHAR NOT NULL, 
	value DOUBLE NOT NULL, element VARCHAR DEFAULT 'N' NOT NULL, also JSON DEFAULT '[]' NOT NULL, route VARCHAR DEFAULT 'root' NOT NULL, school_id VARCHAR, 
	CONSTRAINT pk_recipe_version PRIMARY KEY (id), 
	CONSTRAINT fk_recipe_version_product_id FOREIGN KEY(product_id) REFERENCES product (id), 
	CONSTRAINT fk_recipe_version_recipe_id FOREIGN KEY(recipe_id) REFERENCES recipe (id)
);
INSERT INTO "recipe_version" VALUES(1,1,1,'2026-11-01',1,'{"name": "Nitrate feed 13-3-15 with Ca and Mg", "form": "powder", "basis": "w/w", "density_g_mL": null, "n_total_pct": null, "n_nitrate_pct": 11.6, "n_ammonium_pct": 1.4, "n_urea_pct": null, "p_pct": 3.0, "k_pct": 15.0, "pk_as": "oxide", "ca_pct": 8.0, "mg_pct": 2.0, "s_pct": null, "cl_pct": null, "na_pct": null, "label_rate": 1.0, "label_rate_unit": "g/L", "solubility_g_L": 300.0}','nitrogen',50.0,'N','[]','root',NULL);
CREATE TABLE report (
	water_id INTEGER NOT NULL, 
	"on" DATE NOT NULL, 
	laboratory VARCHAR NOT NULL, 
	"reported_uS_cm" DOUBLE, 
	note VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_report PRIMARY KEY (id), 
	CONSTRAINT fk_report_water_id FOREIGN KEY(water_id) REFERENCES water (id)
);
INSERT INTO "report" VALUES(1,'2026-06-01','Invented',40.0,'',1,NULL);
CREATE TABLE "runoff" (
	pour_id INTEGER, 
	"volume_L" DOUBLE, 
	"ec_uS_cm" DOUBLE, 
	method VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	pot_id INTEGER, 
	"on" DATE, 
	"pH" DOUBLE, 
	colour VARCHAR DEFAULT '' NOT NULL, 
	crust VARCHAR DEFAULT '' NOT NULL, 
	note VARCHAR DEFAULT '' NOT NULL, 
	left_out BOOLEAN DEFAULT '0' NOT NULL, 
	read_twice BOOLEAN DEFAULT '0' NOT NULL, 
	CONSTRAINT pk_runoff PRIMARY KEY (id), 
	CONSTRAINT fk_runoff_pour_id FOREIGN KEY(pour_id) REFERENCES pour (id), 
	CONSTRAINT uq_runoff_pour_id UNIQUE (pour_id), 
	CONSTRAINT fk_runoff_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id)
);
INSERT INTO "runoff" VALUES(2,0.05,500.0,'runoff',1,NULL,NULL,NULL,NULL,'','','',0,0);
INSERT INTO "runoff" VALUES(NULL,NULL,640.0,'pour-through',2,NULL,1,'2026-11-19',6.1,'clear','trace','between pours',0,0);
CREATE TABLE school_copy (
	school_id VARCHAR NOT NULL, 
	name VARCHAR NOT NULL, 
	figures JSON NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_school_copy PRIMARY KEY (id)
);
INSERT INTO "school_copy" VALUES('x','x','{}',1,NULL);
CREATE TABLE series (
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	pot_id INTEGER, 
	place_id INTEGER, 
	what VARCHAR NOT NULL, 
	"on" DATE NOT NULL, 
	days JSON NOT NULL, 
	note VARCHAR DEFAULT '' NOT NULL, 
	CONSTRAINT pk_series PRIMARY KEY (id), 
	CONSTRAINT fk_series_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id), 
	CONSTRAINT fk_series_place_id FOREIGN KEY(place_id) REFERENCES place (id)
);
INSERT INTO "series" VALUES(1,NULL,1,NULL,'spray','2026-09-03','[1,8,15]','');
CREATE TABLE setting (
	"key" VARCHAR NOT NULL, 
	value VARCHAR NOT NULL, 
	CONSTRAINT pk_setting PRIMARY KEY ("key")
);
INSERT INTO "setting" VALUES('collection_name','Ansa Orangery');
CREATE TABLE standing_rule (
	scope VARCHAR NOT NULL, 
	"key" VARCHAR NOT NULL, 
	school_id VARCHAR NOT NULL, 
	phase_school VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_standing_rule PRIMARY KEY (id)
);
INSERT INTO "standing_rule" VALUES('x','x','x','x',1,NULL);
CREATE TABLE stock_bottle (
	made_on DATE NOT NULL, 
	name VARCHAR NOT NULL, 
	letter VARCHAR NOT NULL, 
	contents JSON NOT NULL, 
	"volume_mL" DOUBLE NOT NULL, 
	"draw_mL_per_L" DOUBLE NOT NULL, 
	dilution VARCHAR NOT NULL, 
	hazard VARCHAR NOT NULL, 
	use_by DATE, 
	working JSON, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_stock_bottle PRIMARY KEY (id)
);
INSERT INTO "stock_bottle" VALUES('2026-11-01','x','x','[]','x','x','x','x',NULL,NULL,1,NULL);
CREATE TABLE submission (
	"key" VARCHAR NOT NULL, 
	route VARCHAR NOT NULL, 
	request_hash VARCHAR NOT NULL, 
	at DATETIME NOT NULL, 
	answer JSON NOT NULL, 
	CONSTRAINT pk_submission PRIMARY KEY ("key")
);
INSERT INTO "submission" VALUES('851c7226728f41fc8b656923f5060a41','/api/waters','8dfc1483bf569a84ca703aef91222fd45500068e610c3b99ba7a213d6d5ddbc6','2026-11-23 17:22:47.680462','{"id": 1}');
INSERT INTO "submission" VALUES('ca514076c8b1445482bbe64ed6888475','/api/waters/1/readings','9d11b817cce075d85a07038fb7f92168fa33dc4104a8e4433c47b9e7a246c3ab','2026-11-23 17:22:47.712842','{"id": 1, "on": "2026-11-20", "value": 34.0, "unit": "\u00b5S/cm", "scale": null, "temperature_C": null, "compensated": true, "ec25_uS_cm": 34.0, "half_width_uS_cm": 1.6800000000000002, "refusal": "", "possible_uS_cm": {}}');
INSERT INTO "submission" VALUES('06759730848f4ce0b07feb7959128d70','/api/waters','96d90210c6a6fb819de2151d4a5421e654d08043c9e71ab113a0eef894f7f153','2026-11-23 17:22:47.725809','{"id": 2}');
INSERT INTO "submission" VALUES('25361d507a484fa987a12d92ec914406','/api/waters/2/readings','67a0d6853de48f45ef82d74a851cadbfb5a9672171fcfa17c383340b145a344e','2026-11-23 17:22:47.744964','{"id": 2, "on": "2026-11-20", "value": 310.0, "unit": "ppm", "scale": "unknown", "temperature_C": null, "compensated": true, "ec25_uS_cm": null, "half_width_uS_cm": null, "refusal": "Scale of the ppm reading is not known: 310 ppm is 620 \u00b5S/cm on the 0.5 scale, 484 \u00b5S/cm on the 0.64 scale, 443 \u00b5S/cm on the 0.7 scale. Find the scale in the meter''s leaflet, or read a known standard; until then nothing is computed from it.", "possible_uS_cm": {"0.5": 620.0, "0.64": 484.375, "0.7": 442.8571428571429}}');
INSERT INTO "submission" VALUES('8f46fbc2e314485d887f7de4fde0d308','/api/pots','2c9d7f0a2b2cf33a0a101f22426e4baac1b03d90adec767019a702dcae3f9b96','2026-11-23 17:22:47.882070','{"id": 1}');
INSERT INTO "submission" VALUES('d99a4047ada94b128571247f96dc8021','/api/pours','2885fe0053b6b8a1c0e0e1993da268857b3d2f05fd6e15fda6cb9eb87bdd6c8b','2026-11-23 17:22:47.944392','{"pour_ids": [1], "ec_uS_cm": 34.0}');
CREATE TABLE timer (
	pot_id INTEGER NOT NULL, 
	started_at DATETIME NOT NULL, 
	minutes DOUBLE NOT NULL, 
	done_at DATETIME, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_timer PRIMARY KEY (id), 
	CONSTRAINT fk_timer_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id)
);
INSERT INTO "timer" VALUES(1,'2026-11-01 08:00:00.000000',12.5,'2026-11-01 08:00:00.000000',1,NULL);
CREATE TABLE treatment (
	water_id INTEGER NOT NULL, 
	"on" DATE NOT NULL, 
	kind VARCHAR NOT NULL, 
	"before_uS_cm" DOUBLE, 
	"after_uS_cm" DOUBLE, 
	note VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_treatment PRIMARY KEY (id), 
	CONSTRAINT fk_treatment_water_id FOREIGN KEY(water_id) REFERENCES water (id)
);
INSERT INTO "treatment" VALUES(1,'2026-06-02','stood overnight',NULL,NULL,'',1,NULL);
CREATE TABLE trial (
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	question VARCHAR NOT NULL, 
	kind VARCHAR NOT NULL, 
	measure VARCHAR NOT NULL, 
	design VARCHAR NOT NULL, 
	seed INTEGER NOT NULL, 
	started_on DATE NOT NULL, 
	ends_on DATE NOT NULL, 
	lag_low_days DOUBLE NOT NULL, 
	lag_high_days DOUBLE NOT NULL, 
	"plan" JSON NOT NULL, 
	members JSON NOT NULL, 
	ended_on DATE, 
	ended_why VARCHAR DEFAULT '' NOT NULL, 
	CONSTRAINT pk_trial PRIMARY KEY (id)
);
INSERT INTO "trial" VALUES(1,NULL,'a word','a word','a word','a word',1,'2026-11-20','2026-11-20',14.0,14.0,'[]','[]',NULL,'a word');
CREATE TABLE vessel (
	name VARCHAR NOT NULL, 
	kind VARCHAR NOT NULL, 
	"volume_L" DOUBLE NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_vessel PRIMARY KEY (id)
);
INSERT INTO "vessel" VALUES('x','x','x',1,NULL);
CREATE TABLE water (
	name VARCHAR NOT NULL, 
	kind VARCHAR NOT NULL, 
	preference INTEGER NOT NULL, 
	"price_per_L" DOUBLE, 
	disinfectant VARCHAR NOT NULL, 
	"free_chlorine_mg_L" DOUBLE, 
	"sodium_mg_L" DOUBLE, 
	"fluoride_mg_L" DOUBLE, 
	"hardness_mg_L_CaCO3" DOUBLE, 
	"alkalinity_mg_L_CaCO3" DOUBLE, 
	ions JSON, 
	unknown JSON NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, "on_hand_L" DOUBLE, "capacity_L" DOUBLE, collected_on DATE, membrane_floor_pct DOUBLE, on_hand_on DATE, 
	CONSTRAINT pk_water PRIMARY KEY (id)
);
INSERT INTO "water" VALUES('Rain','rain',100,NULL,'none',NULL,NULL,NULL,NULL,NULL,NULL,'[]',1,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "water" VALUES('Tap','softened',100,NULL,'unknown',NULL,138.0,NULL,NULL,NULL,'{"Ca_mg_L": 118.0, "alkalinity_mg_L_CaCO3": 265.0}','[]',2,NULL,NULL,NULL,NULL,NULL,NULL);
CREATE TABLE weight (
	pot_id INTEGER NOT NULL, 
	"on" DATE NOT NULL, 
	grams DOUBLE NOT NULL, 
	kind VARCHAR NOT NULL, 
	id INTEGER NOT NULL, 
	archived_at DATETIME, 
	CONSTRAINT pk_weight PRIMARY KEY (id), 
	CONSTRAINT fk_weight_pot_id FOREIGN KEY(pot_id) REFERENCES pot (id)
);
INSERT INTO "weight" VALUES(1,'2026-11-01',12.5,'x',1,NULL);
CREATE INDEX ix_correction_row ON correction (table_name, row_id);
CREATE INDEX ix_decision_pot_id ON decision (pot_id);
CREATE INDEX ix_event_pot_id ON event (pot_id);
CREATE INDEX ix_plant_pot_id ON plant (pot_id);
CREATE INDEX ix_growth_plant_id ON growth (plant_id);
CREATE INDEX ix_leaf_growth_id ON leaf (growth_id);
CREATE INDEX ix_phase_span_growth_id ON phase_span (growth_id);
CREATE INDEX ix_membrane_pair_water_id ON membrane_pair (water_id);
CREATE INDEX ix_meter_check_meter_id ON meter_check (meter_id);
CREATE INDEX ix_report_water_id ON report (water_id);
CREATE INDEX ix_treatment_water_id ON treatment (water_id);
CREATE INDEX ix_finding_reading_id ON finding (reading_id);
CREATE INDEX ix_finding_report_id ON finding (report_id);
CREATE INDEX ix_finding_water_quantity_on ON finding (water_id, quantity, "on");
CREATE INDEX ix_reading_water_on ON reading (water_id, "on");
CREATE INDEX ix_school_copy_school_id ON school_copy (school_id);
CREATE INDEX ix_measure_product_id ON measure (product_id);
CREATE INDEX ix_feeding_pot_id ON feeding (pot_id);
CREATE INDEX ix_climate_place_id ON climate (place_id);
CREATE INDEX ix_hold_override_pot_id ON hold_override (pot_id);
CREATE INDEX ix_timer_pot_id ON timer (pot_id);
CREATE INDEX ix_weight_pot_on ON weight (pot_id, "on");
CREATE INDEX ix_profile_copy_profile_id ON profile_copy (profile_id);
CREATE INDEX ix_feel_pot_on ON feel (pot_id, "on");
CREATE INDEX ix_standing_rule_scope_key ON standing_rule (scope, "key");
CREATE INDEX ix_event_errand_id ON event (errand_id);
CREATE INDEX ix_feeding_plan_scope_key ON feeding_plan (scope, "key");
CREATE INDEX ix_pot_code ON pot (code);
CREATE INDEX ix_look_pot_on ON look (pot_id, "on");
CREATE INDEX ix_flush_pot_on ON flush (pot_id, "on");
CREATE INDEX ix_level_pot_on ON level (pot_id, "on");
CREATE INDEX ix_pour_batch_id ON pour (batch_id);
CREATE INDEX ix_pour_pot_on ON pour (pot_id, "on");
CREATE INDEX ix_pour_flush_id ON pour (flush_id);
CREATE INDEX ix_runoff_pot_on ON runoff (pot_id, "on");
CREATE INDEX ix_photo_pot_on ON photo (pot_id, "on");
CREATE INDEX ix_photo_look_id ON photo (look_id);
CREATE INDEX ix_photo_sha256 ON photo (sha256);
CREATE INDEX ix_leaf_length_leaf_id ON leaf_length (leaf_id);
CREATE INDEX ix_mark_look_id ON mark (look_id);
CREATE INDEX ix_organ_look_id ON organ (look_id);
CREATE INDEX ix_rating_photo_id ON rating (photo_id);
CREATE INDEX ix_series_pot_id ON series (pot_id);
CREATE INDEX ix_ill_case_pot_id ON ill_case (pot_id);
CREATE INDEX ix_check_done_pot_on ON check_done (pot_id, "on");
CREATE INDEX ix_logger_device ON logger (device);
CREATE INDEX ix_climate_sample_place_at ON climate_sample (place_id, at);
CREATE INDEX ix_pot_summary_mix ON pot_summary (mix);
CREATE TRIGGER standing_pour_insert AFTER INSERT ON pour  BEGIN DELETE FROM pot_standing WHERE pot_id IN (NEW.pot_id) AND "on" >= NEW."on"; END;
CREATE TRIGGER standing_pour_delete AFTER DELETE ON pour  BEGIN DELETE FROM pot_standing WHERE pot_id IN (OLD.pot_id) AND "on" >= OLD."on"; END;
CREATE TRIGGER standing_pour_update AFTER UPDATE ON pour  BEGIN DELETE FROM pot_standing WHERE pot_id IN (OLD.pot_id, NEW.pot_id) AND "on" >= min(OLD."on", NEW."on"); END;
CREATE TRIGGER standing_look_insert AFTER INSERT ON look  BEGIN DELETE FROM pot_standing WHERE pot_id IN (NEW.pot_id) AND "on" >= NEW."on"; END;
CREATE TRIGGER standing_look_delete AFTER DELETE ON look  BEGIN DELETE FROM pot_standing WHERE pot_id IN (OLD.pot_id) AND "on" >= OLD."on"; END;
CREATE TRIGGER standing_look_update AFTER UPDATE ON look  BEGIN DELETE FROM pot_standing WHERE pot_id IN (OLD.pot_id, NEW.pot_id) AND "on" >= min(OLD."on", NEW."on"); END;
CREATE TRIGGER standing_feel_insert AFTER INSERT ON feel  BEGIN DELETE FROM pot_standing WHERE pot_id IN (NEW.pot_id) AND "on" >= NEW."on"; END;
CREATE TRIGGER standing_feel_delete AFTER DELETE ON feel  BEGIN DELETE FROM pot_standing WHERE pot_id IN (OLD.pot_id) AND "on" >= OLD."on"; END;
CREATE TRIGGER standing_feel_update AFTER UPDATE ON feel  BEGIN DELETE FROM pot_standing WHERE pot_id IN (OLD.pot_id, NEW.pot_id) AND "on" >= min(OLD."on", NEW."on"); END;
CREATE TRIGGER standing_runoff_insert AFTER INSERT ON runoff  BEGIN DELETE FROM pot_standing WHERE pot_id IN (coalesce(NEW.pot_id, (SELECT pot_id FROM pour WHERE id = NEW.pour_id))) AND "on" >= coalesce(NEW."on", (SELECT "on" FROM pour WHERE id = NEW.pour_id)); END;
CREATE TRIGGER standing_runoff_delete AFTER DELETE ON runoff  BEGIN DELETE FROM pot_standing WHERE pot_id IN (coalesce(OLD.pot_id, (SELECT pot_id FROM pour WHERE id = OLD.pour_id))) AND "on" >= coalesce(OLD."on", (SELECT "on" FROM pour WHERE id = OLD.pour_id)); END;
CREATE TRIGGER standing_runoff_update AFTER UPDATE ON runoff  BEGIN DELETE FROM pot_standing WHERE pot_id IN (coalesce(OLD.pot_id, (SELECT pot_id FROM pour WHERE id = OLD.pour_id))) AND "on" >= coalesce(OLD."on", (SELECT "on" FROM pour WHERE id = OLD.pour_id)); DELETE FROM pot_standing WHERE pot_id IN (coalesce(NEW.pot_id, (SELECT pot_id FROM pour WHERE id = NEW.pour_id))) AND "on" >= coalesce(NEW."on", (SELECT "on" FROM pour WHERE id = NEW.pour_id)); END;
CREATE TRIGGER standing_flush_update AFTER UPDATE OF ended_as, archived_at ON flush  BEGIN DELETE FROM pot_standing WHERE pot_id IN (NEW.pot_id) AND "on" >= NEW."on"; END;
CREATE TRIGGER standing_batch_update AFTER UPDATE OF dose_g_L, also, predicted_uS_cm, water_id, water_ec_uS_cm, recipe_version_id ON batch  BEGIN DELETE FROM pot_standing WHERE pot_id IN (SELECT pot_id FROM pour WHERE batch_id = NEW.id) AND "on" >= min(OLD.made_on, NEW.made_on); END;
CREATE TRIGGER standing_water_update AFTER UPDATE OF kind, ions ON water WHEN OLD.kind IS NOT NEW.kind OR OLD.ions IS NOT NEW.ions BEGIN DELETE FROM pot_standing; END;
CREATE INDEX ix_look_plant_on ON look (plant_id, "on");
CREATE INDEX ix_photo_plant_on ON photo (plant_id, "on");
COMMIT;
